/**
 * Runs one task at a time and only the latest of those that came meanwhile: while a key is held down, stale work is
 * dropped and the last state is always the one shown.
 */
export class Latest<Input> {
  private running = false
  private waiting: { input: Input } | undefined
  /** Comes when nothing is left to do. */
  idle: Promise<void> = Promise.resolve()

  constructor(private readonly task: (input: Input) => Promise<void>) {}

  /** Whether something came while the task was running. */
  get isStale(): boolean {
    return this.waiting !== undefined
  }

  run(input: Input): void {
    this.waiting = { input }
    if (!this.running) this.idle = this.drain()
  }

  private async drain(): Promise<void> {
    this.running = true
    while (this.waiting) {
      const { input } = this.waiting
      this.waiting = undefined
      await this.task(input)
    }
    this.running = false
  }
}
