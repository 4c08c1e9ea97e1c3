import type { Vec } from '../geometry'
import type { Part } from '../part'
import type { PartState } from '../route'
import {
  endCircles,
  extentOf,
  loopsOf,
  type Loop,
  type Section,
  type SectionEdge,
} from '../section'
import { needsKernel } from './solids'
import { escaped, num, pathOf } from './svg'

/** Room round the picture, and between its two views, in mm; widths of lines as ISO 128-2 has them in a group of 0.5. */
const MARGIN = 5
const GAP = 15
const WIDE = 0.5
const NARROW = 0.25

/**
 * A part's section through its axis and its view from the right, as SVG in mm: lines, arcs and free curves as they
 * are. Parts that stand are drawn upright.
 * @returns undefined when nothing is turned
 */
export function writeSectionSvg(state: PartState): string | undefined {
  const { part } = state
  const bodies = state.bodies.filter((b) => !b.reference && b.section.regions.length > 0)
  if (bodies.length === 0) return undefined
  const extents = bodies.map((b) => extentOf(b.section))
  const [left, right] = [
    Math.min(...extents.map(([l]) => l)),
    Math.max(...extents.map(([, r]) => r)),
  ]
  const radius = Math.max(
    ...bodies.flatMap((b) => endCircles(b.section, 'right').map((c) => c.radius)),
  )
  const middle = right + GAP + radius
  const [x0, x1] = [left - MARGIN, middle + radius + MARGIN]
  const [y0, y1] = [-radius - MARGIN, radius + MARGIN]
  const content = [
    ...bodies.map((b) => sectionOf(b.section, nameOf(part, b.bodyId))),
    line({ x: left - MARGIN / 2, y: 0 }, { x: right + MARGIN / 2, y: 0 }),
    `<g fill="none" stroke-width="${WIDE}">${bodies.map((b) => circlesOf(b.section, middle)).join('')}</g>`,
    line({ x: middle - radius - MARGIN / 2, y: 0 }, { x: middle + radius + MARGIN / 2, y: 0 }),
    line({ x: middle, y: y0 + MARGIN / 2 }, { x: middle, y: y1 - MARGIN / 2 }),
  ].join('\n')
  const upright = part.lie === 'standing'
  const [w, h] = upright ? [y1 - y0, x1 - x0] : [x1 - x0, y1 - y0]
  const [u, v] = upright ? [y0, -x1] : [x0, y0]
  const told = needsKernel(state)
    ? 'The section and the view are those of the full turn: holes, flats and slots are not shown.'
    : 'Section through the axis, and view from the right.'
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${num(w)}mm" height="${num(h)}mm" viewBox="${[u, v, w, h].map(num).join(' ')}">`,
    `<title>${escaped(part.name)}</title>`,
    `<desc>${told} Lengths in mm.</desc>`,
    `<g stroke="#000" stroke-linejoin="round"${upright ? ' transform="rotate(-90)"' : ''}>`,
    content,
    '</g>',
    '</svg>',
    '',
  ].join('\n')
}

const nameOf = (part: Part, id: string): string => part.bodies.find((b) => b.id === id)?.name ?? ''

/** Material above and below the axis, and its outlines; what closes it along the axis is no edge. Y of a picture goes down. */
function sectionOf(section: Section, name: string): string {
  const loops = loopsOf(section)
  const both = (draw: (side: 1 | -1) => string): string => `${draw(-1)}${draw(1)}`
  const material = both((side) => loops.map((loop) => `${runOf(loop, side)}Z`).join(''))
  const outlines = both((side) =>
    loops
      .flatMap(openRuns)
      .map((run) => runOf(run, side))
      .join(''),
  )
  return [
    `<g><title>${escaped(name)}</title>`,
    `<path fill="#e4e4e4" fill-rule="evenodd" stroke="none" d="${material}"/>`,
    `<path fill="none" stroke-width="${WIDE}" stroke-linecap="round" d="${outlines}"/></g>`,
  ].join('\n')
}

/** The edges of a loop between those along the axis, in runs. */
function openRuns(loop: Loop): Loop[] {
  const start = loop.findIndex((e) => e.name.role === 'axis')
  if (start < 0) return [[...loop, ...loop.slice(0, 1)]]
  const runs: SectionEdge[][] = []
  let run: SectionEdge[] = []
  for (const edge of [...loop.slice(start + 1), ...loop.slice(0, start + 1)]) {
    if (edge.name.role !== 'axis') run.push(edge)
    else {
      if (run.length > 0) runs.push(run)
      run = []
    }
  }
  return runs
}

const runOf = (edges: Loop, side: 1 | -1): string =>
  pathOf(
    edges.map((e) => e.piece),
    side,
  )

const circlesOf = (section: Section, middle: number): string =>
  endCircles(section, 'right')
    .map(({ radius, hidden }) => {
      const look = hidden ? ` stroke-width="${NARROW}" stroke-dasharray="3 1.5"` : ''
      return `<circle cx="${num(middle)}" cy="0" r="${num(radius)}"${look}/>`
    })
    .join('')

/** A centre line: long dashes and dots (ISO 128-2, line type 04.1). */
const line = (a: Vec, b: Vec): string =>
  `<path fill="none" stroke-width="${NARROW}" stroke-dasharray="6 0.75 0.25 0.75" d="M${num(a.x)} ${num(a.y)}L${num(b.x)} ${num(b.y)}"/>`
