/**
 * The frames of one shot, drawn as they come. They do not pass through the page's state: a picture is shown before the page
 * has worked out what else its answer changes.
 */
export class Frames {
  current: ImageData | undefined
  /** The frame before the last change. */
  before: ImageData | undefined
  /** The last one with all its pixels. */
  private fine: ImageData | undefined
  /** Whether a newer one is on its way. */
  awaited = true
  private readonly watchers = new Set<() => void>()

  /** Another one was asked for. */
  await(): void {
    this.awaited = true
    for (const watcher of this.watchers) watcher()
  }

  /** None will come: what was asked for cannot be. */
  stay(): void {
    this.awaited = false
    for (const watcher of this.watchers) watcher()
  }

  /** Shows one; a coarse one stands until the fine one is here. */
  show(frame: ImageData, awaited: boolean, coarse = false): void {
    this.current = frame
    if (!coarse) this.fine = frame
    this.awaited = awaited
    for (const watcher of this.watchers) watcher()
  }

  /** Keeps the present frame to compare with. */
  keep(): void {
    this.before = this.fine ?? this.current
  }

  watch(watcher: () => void): () => void {
    this.watchers.add(watcher)
    return () => this.watchers.delete(watcher)
  }
}
