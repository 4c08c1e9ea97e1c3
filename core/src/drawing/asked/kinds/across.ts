import { vec, type Vec } from '../../../geometry'
import type { FlatsStep, SlotStep } from '../../../part'
import { DIRECTION_TOLERANCE } from '../../../tolerances'
import type { Asked, Shape } from '../asked'
import type { StepView } from '../kind'

/**
 * What of flats and slots is shown on a section across the axis, and what along it. Only of those that lie square to
 * the paper's edges there; of others all is told in words.
 */
type Parts = Pick<Asked, 'parts'>

/** The four ways of the paper. A section is seen from the left: angles grow to the right from above. */
const WAYS: readonly Vec[] = [vec(0, 1), vec(1, 0), vec(0, -1), vec(-1, 0)]

/** The way of the paper that one of some evenly spread directions has; the one upwards first. */
function squareWay(first: number, count: number): Vec | undefined {
  const all = Array.from({ length: count }, (_, i) => first + (2 * Math.PI * i) / count)
  return WAYS.find(({ x, y }) =>
    all.some((a) => Math.hypot(Math.sin(a) - x, Math.cos(a) - y) < DIRECTION_TOLERANCE),
  )
}

/** A place so far out along a way, and so far to its right. */
const placed = (way: Vec, out: number, aside: number): Vec =>
  vec(way.x * out + way.y * aside, way.y * out - way.x * aside)

/** A size along a way of the section, or square to it. */
const sized = (at: number, from: Vec, to: Vec): Shape => ({
  ...{ kind: 'section', at, from, to },
  way: Math.abs(from.x - to.x) > Math.abs(from.y - to.y) ? 'level' : 'upright',
})

const times = (count: number): string => (count > 1 ? `${count} × ` : '')

/** Where along the axis something of a length stands whose middle is told, and its distance from an edge. */
function alongParts(
  view: StepView,
  middle: number,
  radius: number,
  length: { readonly path: string; readonly formula: string } | undefined,
  distance: string,
): Asked[] {
  const long = length ? (view.value(length.formula) ?? 0) : 0
  const [start, end] = [middle - long / 2, middle + long / 2]
  const off = view.value(distance) ?? 0
  const stands = (x: number): boolean =>
    view.bodyEdges.some(({ piece }) => [piece.from, piece.to].some((p) => Math.abs(p.x - x) < 1e-6))
  const place = (x: number): Vec => vec(x, radius)
  const reach = stands(start - off) ? [start - off, start] : [end, end + off]
  const [from = 0, to = 0] = reach
  return [
    ...(length
      ? view.size(length.path, length.formula, {
          ...{ kind: 'along', from: place(start), to: place(end), inside: false },
        })
      : []),
    ...(off === 0
      ? []
      : view.size('distance', distance, {
          ...{ kind: 'along', from: place(from), to: place(to), inside: false },
        })),
  ]
}

export function slotParts(step: SlotStep, view: StepView, count: number): Parts {
  const [told] = view.sizes
  if (!told || step.form === 'end') return {}
  const { x, y, z } = told.at
  const way = squareWay(Math.atan2(y, x), count)
  const [width, depth] = [view.value(step.width), view.value(step.depth)]
  if (!way || width === undefined || depth === undefined) return {}
  const radius = Math.hypot(x, y)
  const half = width / 2
  const rim = Math.sqrt(Math.max(0, radius * radius - half * half))
  const first = view.size(
    'width',
    step.width,
    sized(z, placed(way, rim, -half), placed(way, rim, half)),
    times(count),
  )
  const hasPhase = step.phase.trim() !== ''
  const isRound = step.form === 'woodruff'
  const lines = [
    ...(isRound ? [{ text: `half-round seat, cutter ${view.text(step.cutter, '⌀').text}` }] : []),
    ...(hasPhase ? [{ text: `at ${view.text(step.phase, '', 'angle').text}` }] : []),
  ]
  const fields = [...(isRound ? ['cutter'] : []), ...(hasPhase ? ['phase'] : [])]
  return {
    parts: [
      ...first.map((a) => ({ ...a, shows: [...a.shows, idBeside(a, 'count')] })),
      ...view.size(
        'depth',
        step.depth,
        sized(z, placed(way, radius - depth, half), placed(way, radius, half)),
      ),
      ...view.call(fields, lines, {
        ...{ kind: 'onSection', at: z, out: way },
        place: placed(way, radius - depth, 0),
      }),
      ...alongParts(
        view,
        z,
        radius,
        step.form === 'keyway' ? { path: 'length', formula: step.length } : undefined,
        step.distance,
      ),
    ],
  }
}

/** The id of another field of the step that something belongs to. */
const idBeside = ({ id }: Asked, field: string): string => id.replace(/[^/]*$/, field)

export function flatParts(step: FlatsStep, view: StepView, count: number): Parts {
  const [told] = view.sizes
  if (!told) return {}
  const { x, y, z } = told.at
  const way = squareWay(Math.atan2(y, x), count)
  const size = view.value(step.size)
  if (!way || size === undefined) return {}
  const out = Math.hypot(x, y)
  // Over the flat and what lies opposite, or from the flat to the round that was there.
  const far = step.measure === 'across' ? out - size : out + size
  const [from, to] = [placed(way, Math.min(out, far), 0), placed(way, Math.max(out, far), 0)]
  const sign = count === 4 && step.measure === 'across' ? '□' : ''
  // A pair of flats needs no count: both are seen.
  const pairs = step.measure === 'across' && count % 2 === 0 ? count / 2 : count
  const before = pairs > 1 && sign === '' ? `${pairs} × ` : ''
  const first = view.size('size', step.size, sized(z, from, to), `${before}${sign}`)
  const long = step.length.trim() === '' ? undefined : { path: 'length', formula: step.length }
  return {
    parts: [
      ...first.map((a) => ({ ...a, shows: [...a.shows, idBeside(a, 'count')] })),
      ...(step.phase.trim() === ''
        ? []
        : view.call(['phase'], [{ text: `at ${view.text(step.phase, '', 'angle').text}` }], {
            ...{ kind: 'onSection', at: z, place: placed(way, out, 0), out: way },
          })),
      ...alongParts(view, z, out, long, step.distance),
    ],
  }
}
