import {
  cross,
  cubic,
  distance,
  dot,
  line,
  mix,
  subtract,
  type Piece,
  type Vec,
} from '@lathica/core/geometry'
import { entityName, locator, planeWords, directionAt } from '@lathica/core/sketch'
import type { NewConstraint } from '@lathica/core/constraints'
import type { Draft, End } from '@lathica/core/edit'
import { toPlane } from '../../view'
import type { Snap } from '../../snapping'
import type { Board, PointerAt } from '../tool'
import type { Shape } from './placing'

const ORIGIN_END: End = { at: { x: 0, y: 0 } }
const nth = (places: readonly End[], i: number): Vec => (places[i] ?? ORIGIN_END).at

/** Ways nearer than this to one that is suggested are drawn to it, in radians. */
const NEAR_WAY = (5 * Math.PI) / 180

/** The points of the draft, in the order they are placed. */
const NAMES = ['~from', '~to', '~leave', '~come'] as const

/** A free curve by its ends and by the ways it leaves the one and comes to the other. */
export const freeCurve = (next: () => Shape): Shape => ({
  label: 'draw curve',
  hints: [
    'Click where the curve begins.',
    'Click where it ends.',
    'Click where it heads as it begins: the farther away, the longer it keeps to that way.',
    'Click where it comes from as it ends: the farther away, the longer it keeps to that way.',
  ],
  draft: (places): Draft => ({
    points: Object.fromEntries(NAMES.map((name, i) => [name, places[i] ?? ORIGIN_END])),
    entities: [
      {
        ...{ id: '~curve', kind: 'curve', from: '~from', to: '~to', role: 'outline' },
        ...{ fromHandle: '~leave', toHandle: '~come' },
      },
    ],
  }),
  pieces: (places) => piecesOf(places.map((p) => p.at)),
  // Handles stand free; only the ways of the curve at its ends are suggested.
  snap: (board, places, at) => (places.length < 2 ? undefined : handleSnap(board, places, at)),
  next,
})

/** What is known of the curve, the rest as it is likeliest, with its handles. */
function piecesOf(places: readonly Vec[]): Piece[] {
  const [from, to, leave, come] = places
  if (!from || !to) return []
  const [a, b] = [leave ?? mix(from, to, 1 / 3), come ?? mix(from, to, 2 / 3)]
  const legs = [...(leave ? [line(from, leave)] : []), ...(come ? [line(to, come)] : [])]
  return [cubic(from, a, b, to), ...legs.filter((l) => distance(l.from, l.to) > 0)]
}

/** A way that the curve may have at an end, and what it is called. */
interface Way {
  readonly along: Vec
  readonly words: string
  readonly tie: NewConstraint
}

function handleSnap(board: Board, places: readonly End[], at: PointerAt): Snap {
  const place = toPlane(board.view(), at.px)
  const isFirst = places.length === 2
  const end = nth(places, isFirst ? 0 : 1)
  const free: Snap = { end: { at: place }, directions: [], ties: [], words: [], guides: [] }
  if (at.shift || distance(place, end) === 0) return free
  const towards = subtract(place, end)
  for (const way of waysAt(board, places[isFirst ? 0 : 1] ?? ORIGIN_END, isFirst)) {
    const [along, off] = [dot(towards, way.along), Math.abs(cross(towards, way.along))]
    if (off > Math.tan(NEAR_WAY) * Math.abs(along)) continue
    const on = { x: end.x + way.along.x * along, y: end.y + way.along.y * along }
    return {
      ...{ ...free, end: { at: on } },
      ...{ words: [way.words], ties: [way.tie], guides: [[end, on]] },
    }
  }
  return free
}

/** On smoothly from what ends there, then along the axis or square to it. */
function waysAt(board: Board, end: End, isFirst: boolean): Way[] {
  const sketch = board.sketch()
  const { kinds } = board.suggesting()
  const locate = locator(sketch)
  const smooth = kinds.has('tangents')
    ? sketch.entities.flatMap((e): Way[] => {
        if (e.kind === 'circle' || (e.from !== end.point && e.to !== end.point)) return []
        const along = directionAt(e, locate, e.from === end.point ? 'start' : 'end')
        if (!along) return []
        const tie: NewConstraint = { kind: 'tangent', curve: '~curve', to: e.id }
        return [{ along, words: `smooth with ${entityName(sketch, e.id)}`, tie }]
      })
    : []
  if (!kinds.has('directions')) return smooth
  const words = planeWords(sketch.plane)
  const [a, b] = isFirst ? (['~from', '~leave'] as const) : (['~to', '~come'] as const)
  const level = (along: 'axial' | 'radial'): Way => ({
    along: along === 'axial' ? { x: 1, y: 0 } : { x: 0, y: 1 },
    words: words[along],
    tie: { kind: 'inLine', a, b, along },
  })
  return [...smooth, level('axial'), level('radial')]
}
