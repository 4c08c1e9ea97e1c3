import { fail, succeed, type Result } from '../../../result'
import {
  add,
  arcAlong,
  cross,
  distance,
  dot,
  scale,
  subtract,
  unit,
  type Vec,
} from '../../../geometry'
import {
  directionAt,
  endsOf,
  isFree,
  legAt,
  locator,
  type Ended,
  type Entity,
  type Role,
  type Sketch,
} from '../../../sketch'
import type { NewConstraint } from '../../../constraints'
import type { Part } from '../../../part'
import { once } from '../../../once'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import type { Command } from '../../command'
import { placeDraft, type Draft } from '../draft'
import { setCurveEnd } from './ends'

/** How two open ends are joined. */
export interface Bridge {
  readonly sketch: string
  /** The points at which two pieces, or two chains, end. */
  readonly ends: readonly [string, string]
  /**
   * A free curve that goes on smoothly at both ends, or bends on there as well; an arc that goes on smoothly from the
   * first; or a straight line.
   */
  readonly shape: BridgeShape
  /** How long a curve keeps to its direction at each end: 1 as an arc would, 2 twice as long. */
  readonly fullness: readonly [number, number]
}

export type BridgeShape = 'smooth' | 'bend' | 'round' | 'flat'

/** Joins two open ends. */
export function bridgeEnds(bridge: Bridge): Command {
  return {
    label: 'bridge',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === bridge.sketch)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const [a, b] = bridge.ends.map((p) => openEnd(sketch, p))
      if (!a || !b) {
        const mend = 'Pick two points at which only one piece ends each.'
        return fail('bridge.open', 'These are not two open ends.', mend)
      }
      if (distance(a.at, b.at) <= VERTEX_TOLERANCE) {
        return fail('bridge.zero', 'These ends lie on one another.', 'Let them meet instead.')
      }
      const draft = DRAFTS[bridge.shape](a, b, bridge.fullness)
      if (!draft.ok) return draft
      const drawn = placeDraft(part, bridge.sketch, draft.value)
      if (!drawn.ok) return drawn
      const id = drawn.value.ids.get('~bridge') ?? ''
      const smooth = bridge.shape === 'flat' ? [] : [a, b].filter(hasNoLeg)
      const told = [
        ...smooth.map((e) => setCurveEnd(bridge.sketch, e.entity.id, e.point, 'smooth')),
        ...(bridge.shape === 'bend' ? bridge.ends : []).map((end) =>
          setCurveEnd(bridge.sketch, id, end, 'bend'),
        ),
      ]
      return told.reduce<Result<Part>>(
        (result, command) => (result.ok ? command.run(result.value) : result),
        succeed(drawn.value.part),
      )
    },
  }
}

/** Points at which one piece ends and no other; asked for at every move of the pointer. */
export const openEnds = once((sketch: Sketch): readonly string[] => {
  const often = new Map<string, number>()
  for (const p of sketch.entities.flatMap(endsOf)) often.set(p, (often.get(p) ?? 0) + 1)
  const single = [...often].flatMap(([p, n]) => (n === 1 ? [p] : []))
  return single.filter((p) => openEnd(sketch, p) !== undefined)
})

interface OpenEnd {
  readonly point: string
  readonly at: Vec
  readonly entity: Ended
  /** The way on from there, of length 1. */
  readonly away: Vec
}

function openEnd(sketch: Sketch, point: string): OpenEnd | undefined {
  const ending = sketch.entities.filter((e) => endsOf(e).includes(point))
  const [entity, ...more] = ending
  if (!entity || entity.kind === 'circle' || more.length > 0) return undefined
  const locate = locator(sketch)
  const atStart = entity.from === point
  const along = directionAt(entity, locate, atStart ? 'start' : 'end')
  if (!along) return undefined
  return { point, at: locate(point), entity, away: scale(along, atStart ? -1 : 1) }
}

/** Whether a piece is a free curve none of whose points tells its direction there: it gets one to be held by. */
const hasNoLeg = ({ entity, point }: OpenEnd): boolean =>
  isFree(entity) && legAt(entity, entity.from === point) === ''

type Fullness = Bridge['fullness']

const DRAFTS: Readonly<
  Record<BridgeShape, (a: OpenEnd, b: OpenEnd, fullness: Fullness) => Result<Draft>>
> = { smooth: curved, bend: curved, round, flat }

/** What every bridge has: it runs between both ends, in the role of the first piece. */
function between(
  a: OpenEnd,
  b: OpenEnd,
): {
  readonly points: Draft['points']
  readonly ends: {
    readonly id: string
    readonly from: string
    readonly to: string
    readonly role: Role
  }
} {
  return {
    points: { '~a': { at: a.at, point: a.point }, '~b': { at: b.at, point: b.point } },
    ends: { id: '~bridge', from: '~a', to: '~b', role: a.entity.role },
  }
}

const smoothTo = (e: OpenEnd): NewConstraint => ({
  kind: 'tangent',
  curve: '~bridge',
  to: e.entity.id,
})

function curved(a: OpenEnd, b: OpenEnd, fullness: Fullness): Result<Draft> {
  if (!fullness.every((f) => f > 0 && f <= FULLEST)) {
    const mend = `Type a number up to ${FULLEST}; 1 is as full as an arc.`
    return fail('bridge.full', 'A fullness is greater than zero.', mend)
  }
  const { points, ends } = between(a, b)
  const turn = Math.acos(Math.min(1, Math.max(-1, -dot(a.away, b.away))))
  // The handles of an arc of that turn over the chord (half-angle form of the usual 4/3·tan(θ/4)·r).
  const reach = distance(a.at, b.at) / (3 * Math.cos(turn / 4) ** 2)
  const entity: Entity = {
    ...{ ...ends, kind: 'spline', way: 'through', by: [], spans: [1] },
    ...{ fromHandle: '~p', toHandle: '~q' },
  }
  return succeed({
    points: {
      ...points,
      '~p': { at: add(a.at, scale(a.away, reach * fullness[0])) },
      '~q': { at: add(b.at, scale(b.away, reach * fullness[1])) },
    },
    entities: [entity],
    ties: [smoothTo(a), smoothTo(b)],
  })
}

/** The greatest fullness that is taken. */
const FULLEST = 5

/** The arc from the first end in its direction to the second; smooth there too where it comes so by itself. */
function round(a: OpenEnd, b: OpenEnd): Result<Draft> {
  const { points, ends } = between(a, b)
  const arc = arcAlong(a.at, a.away, b.at)
  if (!arc) return fail('bridge.line', 'The second end lies straight ahead.', 'Bridge them flat.')
  const { centre, counterClockwise } = arc
  const spoke = scale(unit(subtract(b.at, centre)), counterClockwise ? 1 : -1)
  // The way in which the arc comes to its end, against the way on from there.
  const comes = { x: -spoke.y, y: spoke.x }
  const isSmooth = dot(comes, b.away) < 0 && Math.abs(cross(comes, b.away)) < NEARLY
  return succeed({
    points: { ...points, '~c': { at: centre } },
    entities: [{ ...ends, kind: 'arc', centre: '~c', counterClockwise }],
    ties: isSmooth ? [smoothTo(a), smoothTo(b)] : [smoothTo(a)],
  })
}

/** The sine of the angle up to which an arc that comes to an end is made to go on smoothly there. */
const NEARLY = 1e-3

function flat(a: OpenEnd, b: OpenEnd): Result<Draft> {
  const { points, ends } = between(a, b)
  return succeed({ points, entities: [{ ...ends, kind: 'line' }] })
}
