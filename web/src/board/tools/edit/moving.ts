import type { Problem } from '@lathica/core/result'
import { distance, scale, subtract, type Vec } from '@lathica/core/geometry'
import { pointsOf, type Sketch } from '@lathica/core/sketch'
import {
  copyItems,
  grow,
  moveItems,
  shift,
  turn,
  type Command,
  type End,
  type Motion,
} from '@lathica/core/edit'
import { problem, readFields } from '../entry'
import { snapAt, snapOverlay } from '../snapping'
import { withPicks } from './gathering'
import { piecesMoved } from './preview'
import type { Board, Entry, EntryField, PointerAt, ToolState } from '../tool'

/** How picks are moved: from which places, or by which values. */
interface Way {
  readonly verb: string
  readonly hints: readonly string[]
  /** The motion given by places; undefined while they give none. */
  readonly motion: (places: readonly Vec[]) => Motion | undefined
  /** From how many places on the values can be typed. */
  readonly typedFrom: number
  readonly fields: readonly EntryField[]
  readonly typed: (
    places: readonly Vec[],
    values: readonly (number | undefined)[],
  ) => Motion | Problem
  readonly command: (sketchId: string, ids: readonly string[], motion: Motion) => Command
}

const nth = (places: readonly Vec[], i: number): Vec => places[i] ?? { x: 0, y: 0 }

const byShift = {
  hints: ['Click where to take hold, or type by how much.', 'Click where that goes.'],
  motion: (places: readonly Vec[]) =>
    places.length > 1 ? shift(subtract(nth(places, 1), nth(places, 0))) : undefined,
  typedFrom: 0,
  fields: [
    { label: 'axially', want: 'length' },
    { label: 'radially', want: 'length' },
  ],
  typed: (_: readonly Vec[], [x = 0, y = 0]: readonly (number | undefined)[]) =>
    x === 0 && y === 0
      ? problem('move.nothing', 'This moves nothing.', 'Type how far it goes.')
      : shift({ x, y }),
} as const

const WAYS: Readonly<Record<'move' | 'copy' | 'rotate' | 'scale', Way>> = {
  move: {
    ...byShift,
    verb: 'move',
    command: (sketch, ids, motion) => moveItems(sketch, ids, motion, 'move', true),
  },
  copy: {
    ...byShift,
    verb: 'copy',
    command: (sketch, ids, motion) => copyItems(sketch, ids, motion, true),
  },
  rotate: {
    verb: 'rotate',
    hints: [
      'Click the centre to rotate about; Enter takes the middle of what is picked.',
      'Click a place to take hold, or type the angle.',
      'Click where that goes.',
    ],
    motion: (places) => {
      if (places.length < 3) return undefined
      const [u, v] = [
        subtract(nth(places, 1), nth(places, 0)),
        subtract(nth(places, 2), nth(places, 0)),
      ]
      return turn(nth(places, 0), Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y))
    },
    typedFrom: 1,
    fields: [{ label: 'angle', want: 'angle' }],
    typed: (places, [angle = 0]) =>
      angle === 0
        ? problem('rotate.nothing', 'This rotates nothing.', 'Type an angle.')
        : turn(nth(places, 0), angle),
    command: (sketch, ids, motion) => moveItems(sketch, ids, motion, 'rotate', false),
  },
  scale: {
    verb: 'scale',
    hints: [
      'Click the place to scale about; Enter takes the middle of what is picked.',
      'Click a place to take hold, or type the factor.',
      'Click where that goes.',
    ],
    motion: (places) => {
      const [o, p, q] = [nth(places, 0), nth(places, 1), nth(places, 2)]
      if (places.length < 3 || distance(o, p) === 0) return undefined
      const factor = distance(o, q) / distance(o, p)
      return factor > 0 ? grow(o, factor) : undefined
    },
    typedFrom: 1,
    fields: [{ label: 'factor', want: 'number' }],
    typed: (places, [factor = 0]) =>
      factor > 0
        ? grow(nth(places, 0), factor)
        : problem('scale.factor', 'The factor is greater than zero.', 'Type another.'),
    command: (sketch, ids, motion) => moveItems(sketch, ids, motion, 'scale', true),
  },
}

export function moving(board: Board, kind: keyof typeof WAYS): ToolState {
  const way = WAYS[kind]
  return withPicks(board, way.verb, (ids) => placing(board, way, ids, []))
}

function placing(
  board: Board,
  way: Way,
  ids: readonly string[],
  places: readonly End[],
  at?: PointerAt,
): ToolState {
  const snap = at && snapAt(board, at, undefined, false)
  const here = places.map((p) => p.at)
  const motion = snap && way.motion([...here, snap.end.at])
  const rubber = motion ? piecesMoved(board.sketch(), ids, motion) : []
  const take = (found: Motion): ToolState => {
    if (!board.run(way.command(board.sketch().id, ids, found))) return placing(board, way, ids, [])
    return board.finish()
  }
  const entry: Entry | undefined =
    places.length < way.typedFrom
      ? undefined
      : {
          fields: way.fields,
          take: (texts) => {
            const found = typedMotion(board, way, here, texts)
            return 'message' in found ? found : take(found)
          },
          preview: (texts) => {
            const found = typedMotion(board, way, here, texts)
            return 'message' in found
              ? undefined
              : { rubber: piecesMoved(board.sketch(), ids, found) }
          },
        }
  return {
    hint: way.hints[places.length] ?? '',
    cursor: 'crosshair',
    ...(snap ? { overlay: { ...snapOverlay(snap), rubber } } : {}),
    ...(entry ? { entry } : {}),
    move: (next) => placing(board, way, ids, places, next),
    press: (pointer) => {
      const taken = [...places, snapAt(board, pointer, undefined, false).end]
      const found = way.motion(taken.map((p) => p.at))
      if (taken.length === way.hints.length && found) return take(found)
      return placing(board, way, ids, taken.slice(0, way.hints.length - 1), pointer)
    },
    key: (key) => {
      if (key !== 'Enter' || places.length > 0 || way.hints.length < 3) return undefined
      return placing(board, way, ids, [{ at: middleOfPicks(board.sketch(), ids) }], at)
    },
    escape: () => (places.length > 0 ? placing(board, way, ids, [], at) : undefined),
    refresh: () => board.finish(),
  }
}

/** The middle of all points of what is picked. */
function middleOfPicks(sketch: Sketch, ids: readonly string[]): Vec {
  const own = sketch.entities.filter((e) => ids.includes(e.id)).flatMap(pointsOf)
  const all = sketch.points.filter((p) => ids.includes(p.id) || own.includes(p.id))
  const sum = all.reduce((s, p) => ({ x: s.x + p.x, y: s.y + p.y }), { x: 0, y: 0 })
  return scale(sum, 1 / Math.max(1, all.length))
}

function typedMotion(
  board: Board,
  way: Way,
  places: readonly Vec[],
  texts: readonly string[],
): Motion | Problem {
  const values = readFields(board, way.fields, texts)
  return values.ok ? way.typed(places, values.value) : values.problem
}
