import {
  CHARACTER,
  DASHES,
  lineWidth,
  runsOf,
  signWays,
  type Drawing,
  type Group,
  type Item,
  type Words,
} from '../drawing'
import { escaped, num, pathOf } from './svg'

/** A sheet as SVG in mm of paper; what can be picked is a group with an id. */
export function writeDrawingSvg({ paper, groups, lines }: Drawing, name: string): string {
  const { width, height } = paper
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${num(width)}mm" height="${num(height)}mm" viewBox="0 ${num(-height)} ${num(width)} ${num(height)}" text-rendering="geometricPrecision">`,
    `<title>${escaped(name)}</title>`,
    drawingGroups(groups, lines),
    '</svg>',
    '',
  ].join('\n')
}

/** The groups of a sheet by themselves; y runs from minus its height to 0. */
export const drawingGroups = (groups: readonly Group[], wide: number): string =>
  groups
    .map(({ role, id, said, items }) => {
      const names = `data-role="${role}"${id === '' ? '' : ` data-id="${escaped(id)}"`}`
      const label = said === '' ? '' : ` role="img" aria-label="${escaped(said)}"`
      return `<g ${names}${label}>${items.map((i) => itemSvg(i, wide)).join('')}</g>`
    })
    .join('\n')

function itemSvg(item: Item, wide: number): string {
  switch (item.kind) {
    case 'stroke': {
      const d = item.runs.map((run) => pathOf(run, -1)).join('')
      if (d === '') return ''
      const width = lineWidth(item.line, wide)
      const dashes = DASHES[item.line].map((n) => num(n * width)).join(' ')
      const dash = dashes === '' ? '' : ` stroke-dasharray="${dashes}"`
      return `<path class="${item.line}" fill="none" stroke="currentColor" stroke-width="${num(width)}" stroke-linecap="${dashes === '' ? 'round' : 'butt'}" stroke-linejoin="round"${dash} d="${d}"/>`
    }
    case 'fill':
      return `<path fill="${item.tone === 'ink' ? 'currentColor' : '#fff'}" stroke="none" fill-rule="evenodd" d="${item.loops.map((loop) => `${pathOf(loop, -1)}Z`).join('')}"/>`
    case 'words':
      return wordsSvg(item)
  }
}

/** Em of the typeface for a height of capitals of 1. */
const EM = CHARACTER / 0.6

function wordsSvg({ at, height, turned, text }: Words): string {
  const place = `translate(${num(at.x)} ${num(-at.y)})${turned ? ' rotate(-90)' : ''}`
  const runs = runsOf(text)
  const signs = runs
    .filter((r) => r.isSign)
    .map((r) => signPath(r.text, r.from * CHARACTER * height, height))
  // What follows a sign is told where it stands, as no font has the sign.
  const spans = runs
    .map(
      ({ text: t, from, isSign }) =>
        `<tspan x="${num(from * CHARACTER * height)}"${isSign ? ' fill="none"' : ''}>${escaped(t)}</tspan>`,
    )
    .join('')
  const path =
    signs.length === 0
      ? ''
      : `<path fill="none" stroke="currentColor" stroke-width="${num(height / 10)}" stroke-linecap="round" d="${signs.join('')}"/>`
  return `<g transform="${place}"><text xml:space="preserve" font-family="'IBM Plex Mono', monospace" font-size="${num(height * EM)}" fill="currentColor" y="0">${spans}</text>${path}</g>`
}

function signPath(sign: string, x: number, height: number): string {
  const at = (numbers: readonly number[]): string =>
    numbers.map((n, i) => num(i % 2 === 0 ? x + n * height : -n * height)).join(' ')
  return signWays(sign)
    .map((way) =>
      way.map((n, i) => `${i === 0 ? 'M' : n.length === 2 ? 'L' : 'C'}${at(n)}`).join(''),
    )
    .join('')
}
