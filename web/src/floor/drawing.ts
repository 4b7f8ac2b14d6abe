/** What of a drawing's looks goes with it when it leaves the page. */
const LOOKS = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'stroke-dasharray',
  'stroke-linecap',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
] as const

/** A drawing of the page as a file of its own, as it looks. */
export function asFile(svg: SVGSVGElement): Blob {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const [from, to] = [svg, copy].map((of) => [of, ...of.querySelectorAll('*')]) as [Element[], Element[]]
  from.forEach((one, index) => {
    const looks = getComputedStyle(one)
    to[index]!.setAttribute('style', LOOKS.map((name) => `${name}:${looks.getPropertyValue(name)}`).join(';'))
    to[index]!.removeAttribute('class')
    to[index]!.removeAttribute('tabindex')
  })
  // What things are taken hold of by is for the hand.
  copy.querySelectorAll('[data-grip]').forEach((grip) => grip.remove())
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  return new Blob([new XMLSerializer().serializeToString(copy)], { type: 'image/svg+xml' })
}
