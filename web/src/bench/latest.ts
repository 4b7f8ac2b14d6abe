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

/** Does something once nothing else was begun for a while, and leaves it as soon as something is. */
export class AfterRest {
  private timer: number | undefined
  private control: AbortController | undefined

  constructor(private readonly rest: number) {}

  leave(): void {
    window.clearTimeout(this.timer)
    this.control?.abort()
  }

  come(task: (signal: AbortSignal) => Promise<unknown>): void {
    this.leave()
    const control = new AbortController()
    this.control = control
    this.timer = window.setTimeout(() => void task(control.signal), this.rest)
  }
}

/** Does what came last, at once where nothing was done for a while, and else when that while is over. */
export class NotTooOften {
  private timer: number | undefined
  private done = -Infinity

  constructor(private readonly apart: number) {}

  leave(): void {
    window.clearTimeout(this.timer)
  }

  come(task: () => void): void {
    this.leave()
    const now = () => {
      this.done = performance.now()
      task()
    }
    const left = this.done + this.apart - performance.now()
    if (left <= 0) now()
    else this.timer = window.setTimeout(now, left)
  }
}
