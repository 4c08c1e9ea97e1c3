import { VERTEX_TOLERANCE } from '../../tolerances'
import { fail, succeed } from '../../result'
import { add, cross, subtract, unit } from '../../geometry'
import {
  endsOf,
  entityMap,
  lineEnds,
  locator,
  pointsOf,
  withPoints,
  type Entity,
  isFree,
} from '../../sketch'
import { followsAlone, nothingPicked, reflect } from './copies'
import { placeDraft, withTiesThatFit, type Draft } from './draft'
import { symmetricEntities, type NewConstraint } from '../../constraints'
import type { End } from './ends'
import type { Command } from '../command'
import type { Part } from '../../part'

/**
 * Mirrors entities about a line or the axis. Points on the line are shared; the rest is kept
 * symmetric by constraints, so that what changes one side changes the other.
 */
export function mirrorItems(sketchId: string, ids: readonly string[], about: string): Command {
  return {
    label: 'mirror',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const picked = sketch.entities.filter((e) => ids.includes(e.id) && e.id !== about)
      const loose = sketch.points.filter((p) => ids.includes(p.id))
      if (picked.length === 0 && loose.length === 0) return nothingPicked()
      if (picked.some((e) => e.kind === 'parallel')) return followsAlone('mirror')
      const [a, b] = lineEnds(entityMap(sketch), locator(sketch), about)
      const motion = reflect(a, b)
      const locate = locator(sketch)
      const points: Record<string, End> = {}
      const images = new Map<string, string>()
      for (const id of new Set([...picked.flatMap(pointsOf), ...loose.map((p) => p.id)])) {
        const place = locate(id)
        const off = cross(unit(subtract(b, a)), subtract(place, a))
        const image = `~${id}`
        // A rim has its own place beside its centre; it is no image of the other rim.
        const rim = picked.find((e) => e.kind === 'circle' && e.rim === id)
        points[image] =
          Math.abs(off) <= VERTEX_TOLERANCE && !rim
            ? { at: place, point: id }
            : { at: motion.place(place) }
        if (rim?.kind === 'circle') {
          const centre = locate(rim.centre)
          points[image] = { at: add(motion.place(centre), subtract(place, centre)) }
        }
        if (Math.abs(off) > VERTEX_TOLERANCE && !rim) images.set(id, image)
      }
      const draft: Draft = {
        points,
        entities: picked.map((e) => {
          const copy = { ...withPoints(e, (id) => `~${id}`), id: `~${e.id}` }
          return copy.kind === 'arc' ? { ...copy, counterClockwise: !copy.counterClockwise } : copy
        }),
      }
      const placed = placeDraft(part, sketchId, draft)
      if (!placed.ok) return placed
      const { ids: made } = placed.value
      return succeed(
        withSymmetry(
          placed.value.part,
          sketchId,
          picked,
          loose.map((p) => p.id),
          about,
          made,
        ),
      )
    },
  }
}

function withSymmetry(
  part: Part,
  sketchId: string,
  originals: readonly Entity[],
  loose: readonly string[],
  about: string,
  made: ReadonlyMap<string, string>,
): Part {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return part
  const ties = new Map<string, NewConstraint>()
  const note = (tie: NewConstraint): void => {
    const key = tie.kind === 'symmetric' ? [tie.a, tie.b].sort().join() : JSON.stringify(tie)
    ties.set(key, tie)
  }
  for (const e of originals) {
    const image = sketch.entities.find((x) => x.id === made.get(`~${e.id}`))
    if (!image) continue
    if (e.kind === 'circle' || image.kind === 'circle') {
      symmetricEntities(sketch, e, image, about).forEach(note)
      continue
    }
    for (const end of isFree(e) ? pointsOf(e) : endsOf(e)) {
      const other = made.get(`~${end}`) ?? end
      if (other !== end) note({ kind: 'symmetric', a: end, b: other, about })
    }
    if (e.kind === 'arc') note({ kind: 'equal', curve: image.id, to: e.id })
  }
  for (const id of loose) {
    const other = made.get(`~${id}`) ?? id
    if (other !== id) note({ kind: 'symmetric', a: id, b: other, about })
  }
  return withTiesThatFit(part, sketchId, [...ties.values()])
}
