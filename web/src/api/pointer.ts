const path = (pointer: string) =>
  pointer
    .split('/')
    .slice(1)
    .map((token) => token.replaceAll('~1', '/').replaceAll('~0', '~'))

/** The value at a JSON pointer (RFC 6901). */
export function valueAt(document: unknown, pointer: string): unknown {
  return path(pointer).reduce<unknown>(
    (node, token) => (node as Record<string, unknown> | undefined)?.[token],
    document,
  )
}

/** A copy of a document with another value at a JSON pointer. */
export function withValue<T>(document: T, pointer: string, value: unknown): T {
  const put = (node: unknown, tokens: string[]): unknown => {
    const [head, ...rest] = tokens
    if (head === undefined) return value
    if (Array.isArray(node))
      return node.map((item, index) => (index === Number(head) ? put(item, rest) : item))
    const record = node as Record<string, unknown>
    return { ...record, [head]: put(record[head], rest) }
  }
  return put(document, path(pointer)) as T
}
