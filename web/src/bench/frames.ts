/**
 * The frames of one shot, drawn as they come. They do not pass through the page's state: a picture is shown before the page
 * has worked out what else its answer changes.
 */
export class Frames {
  current: ImageData | undefined
  /** The frame before the last change. */
  before: ImageData | undefined
  private readonly watchers = new Set<() => void>()

  show(frame: ImageData): void {
    this.current = frame
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
