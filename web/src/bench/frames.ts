/**
 * The frames of one shot, drawn as they come. They do not pass through the page's state: a picture is shown before the page
 * has worked out what else its answer changes.
 */
export class Frames {
  current: ImageData | undefined
  /** The frame before the last change. */
  before: ImageData | undefined
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

  show(frame: ImageData, awaited: boolean): void {
    this.current = frame
    this.awaited = awaited
    for (const watcher of this.watchers) watcher()
  }

  /** Keeps the present frame to compare with. */
  keep(): void {
    this.before = this.current
  }

  watch(watcher: () => void): () => void {
    this.watchers.add(watcher)
    return () => this.watchers.delete(watcher)
  }
}
