import { useEffect, useRef } from 'react'

/** A table that is copied from a spreadsheet and pasted on the screen, not into a field of it. */
export function usePasted(onTable: (file: File) => void) {
  const latest = useRef(onTable)
  useEffect(() => {
    latest.current = onTable
  })
  useEffect(() => {
    const pasted = (event: ClipboardEvent) => {
      const into =
        event.target instanceof Element && event.target.closest('input, textarea, [contenteditable]')
      const text = event.clipboardData?.getData('text/plain') ?? ''
      // One line is a word, not a table.
      if (into || !/\S[\r\n]+\S/.test(text)) return
      event.preventDefault()
      latest.current(new File([text], 'pasted.tsv', { type: 'text/tab-separated-values' }))
    }
    document.addEventListener('paste', pasted)
    return () => document.removeEventListener('paste', pasted)
  }, [])
}
