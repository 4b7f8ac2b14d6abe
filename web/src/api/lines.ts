import { asked, Silence } from './client'

/** What the program tells while it works; the last line is what was found. */
type Event = { is: string }

/** Asks something that takes a while, and hears the answer line by line. */
export async function hearLines<E extends Event>(
  path: string,
  body: unknown,
  signal: AbortSignal,
  hear: (event: E) => void,
) {
  const response = await asked(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    signal,
  })
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  let heard = false
  for (;;) {
    const { done, value } = await reader.read().catch(() => {
      throw new Silence()
    })
    // The last line is the answer: without it the program went away in the middle.
    if (done && !heard) throw new Silence()
    if (done) return
    const lines = (rest + value).split('\n')
    rest = lines.pop()!
    for (const line of lines) {
      const event = JSON.parse(line) as E
      heard ||= event.is === 'found'
      hear(event)
    }
  }
}
