import { fail, succeed, type Result } from '../../../result'
import { distance, evenSpline, spanCount } from '../../../geometry'
import {
  AXIS_ID,
  pointsOf,
  standsOn,
  type Role,
  type Sketch,
  type SketchSpline,
} from '../../../sketch'
import type { Part } from '../../../part'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import { withSketch, type Command } from '../../command'
import { placeDraft } from '../draft'
import type { End } from '../ends'
import { setCurveEnd } from './ends'

/** A free curve as it is drawn: its places in order. */
export interface NewCurve {
  readonly sketch: string
  readonly way: SketchSpline['way']
  /** At least two. */
  readonly places: readonly End[]
  readonly role: Role
  /** Whether it leaves the axis squarely where it ends there, so that it turns to no tip. */
  readonly square: boolean
}

/**
 * Draws a free curve of many places. From a loose end of another one of its way it goes on as the same curve.
 */
export function drawCurve(curve: NewCurve): Command {
  const { sketch: sketchId, way, role } = curve
  return {
    label: 'draw curve',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const places = curve.places.filter((p, i) => i === 0 || !isOne(p, curve.places[i - 1]))
      if (places.length < 2) {
        return fail('curve.short', 'A curve takes two places or more.', 'Click another one.')
      }
      if (isOne(places[0], places.at(-1))) {
        const mend = 'End it beside its start, and close it with another piece.'
        return fail('curve.closed', 'A free curve has two ends, not one.', mend)
      }
      const names = places.map((_, i) => `~${i}`)
      const points = Object.fromEntries(places.map((p, i) => [`~${i}`, p]))
      const entity: SketchSpline = {
        ...{ id: '~curve', kind: 'spline', way, role, fromHandle: '', toHandle: '' },
        ...{ from: '~0', to: names.at(-1) ?? '~0', by: names.slice(1, -1) },
        spans: evenSpline(
          way,
          places.map((p) => p.at),
        ).spans,
      }
      const drawn = placeDraft(part, sketchId, { points, entities: [entity] })
      if (!drawn.ok) return drawn
      const id = drawn.value.ids.get('~curve') ?? ''
      const before = looseCurve(sketch, places, way)
      const joined = before ? goneOn(drawn.value.part, sketchId, before, id) : drawn.value.part
      if (!curve.square) return succeed(joined)
      const own = before?.id ?? id
      const ends = [before ? undefined : places[0], places.at(-1)]
      return ends.reduce<Result<Part>>((result, end, i) => {
        if (!result.ok || !end || !isOnAxis(end)) return result
        const point = drawn.value.ids.get(i === 0 ? '~0' : (names.at(-1) ?? ''))
        return setCurveEnd(sketchId, own, point ?? '', 'square').run(result.value)
      }, succeed(joined))
    },
  }
}

/** Whether a place was put onto the axis, or onto a point there. */
const isOnAxis = ({ at, on, point }: End): boolean =>
  Math.abs(at.y) <= VERTEX_TOLERANCE && (on?.includes(AXIS_ID) === true || point !== undefined)

/** Whether two places of a new curve are one. */
const isOne = (a: End | undefined, b: End | undefined): boolean =>
  a !== undefined && b !== undefined && distance(a.at, b.at) <= VERTEX_TOLERANCE

/** The free curve of a way that ends loosely where another one begins, and can go on as that. */
function looseCurve(
  sketch: Sketch,
  places: readonly End[],
  way: SketchSpline['way'],
): SketchSpline | undefined {
  const [end, last] = [places[0], places.at(-1)]
  const at = sketch.entities.filter((e) => standsOn(e).includes(end?.point ?? ''))
  const [only, ...more] = at
  if (only?.kind !== 'spline' || more.length > 0 || only.way !== way) return undefined
  // A curve has two ends: one that comes back to itself is closed by another.
  if (pointsOf(only).includes(last?.point ?? '')) return undefined
  const handle = only.from === end?.point ? only.fromHandle : only.toHandle
  return [only.from, only.to].includes(end?.point ?? '') && handle === '' ? only : undefined
}

/** The part with two curves that share an end as one, the first going on as the second. */
function goneOn(part: Part, sketchId: string, first: SketchSpline, secondId: string): Part {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  const second = sketch?.entities.find((e) => e.id === secondId)
  if (!sketch || second?.kind !== 'spline') return part
  const atEnd = first.to === second.from
  const [head, tail] = atEnd
    ? [[first.from, ...first.by, first.to], second.by]
    : [
        [second.to, ...[...second.by].reverse()],
        [first.from, ...first.by],
      ]
  const points = atEnd ? [...head, ...tail, second.to] : [...head, ...tail, first.to]
  const fresh = Array.from(
    { length: spanCount(first.way, points.length) - first.spans.length },
    () => 1,
  )
  const whole: SketchSpline = {
    ...first,
    ...{ from: points[0] ?? first.from, to: points.at(-1) ?? first.to, by: points.slice(1, -1) },
    spans: atEnd ? [...first.spans, ...fresh] : [...fresh, ...first.spans],
  }
  const entities = sketch.entities.flatMap((e) =>
    e.id === first.id ? [whole] : e.id === secondId ? [] : [e],
  )
  return withSketch(part, { ...sketch, entities })
}
