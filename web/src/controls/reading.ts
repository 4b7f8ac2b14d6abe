/** Figures that were typed and are still being understood. */
const underWay = new Set<Promise<unknown>>()

export function reading<T>(work: Promise<T>): Promise<T> {
  underWay.add(work)
  void work.finally(() => underWay.delete(work)).catch(() => undefined)
  return work
}

/**
 * Whether all that was typed in a form is understood, once it is. A field that is not has the cursor then: nothing is kept
 * that somebody did not mean.
 */
export async function understood(form: HTMLElement): Promise<boolean> {
  while (underWay.size > 0) await Promise.allSettled(underWay)
  const wrong = form.querySelector<HTMLElement>('[data-unclear]')
  wrong?.focus()
  return !wrong
}
