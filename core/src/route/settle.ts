import { usesSketch, type Part } from '../part'
import { cornersCalled, guidePlace } from '../section'
import { withPositions } from '../solver'
import type { Vec } from '../geometry'
import { SECTION_ID, isEndSketch, type EndSketch, type Sketch } from '../sketch'
import { endPlane } from '../sketch'
import { endMarkAt, endMarks, type EndMarks } from '../solid'
import { evaluate } from './evaluate'
import { followsSection, withLinks, type Places } from './links'
import { drivingOf, remember, solutionOf } from './sketches'
import type { BodyState, PartState } from './state'

/**
 * Solves every sketch in order, each with what it follows of those before it, and stores where its
 * points come to stand. A sketch that cannot be solved keeps the positions it has. Sketches that
 * stand already stay the same objects.
 */
export function settle(part: Part): Part {
  const sketches: Sketch[] = []
  for (const stored of part.sketches) {
    const places = placesFor(stored, part, sketches)
    const sketch = withLinks(stored, sketches, places)
    const driving = drivingOf(sketch, part)
    const solution = solutionOf(sketch, driving)
    const settled = solution.solved ? withPositions(sketch, solution.positions) : sketch
    remember(settled, driving, solution)
    sketches.push(settled)
  }
  return sketches.every((s, i) => s === part.sketches[i]) ? part : { ...part, sketches }
}

/**
 * The part with one sketch's points moved to where a drag holds them, and what follows them. The
 * drag keeps constraints and sizes, so what was known of freedoms still holds and the sketch itself
 * is not solved again.
 */
export function withDragged(
  part: Part,
  sketchId: string,
  positions: ReadonlyMap<string, Vec>,
): Part {
  const sketches = part.sketches.map((sketch) => {
    if (sketch.id !== sketchId) return sketch
    const driving = drivingOf(sketch, part)
    const before = solutionOf(sketch, driving)
    const moved = withPositions(sketch, positions)
    remember(moved, driving, { ...before, positions })
    return moved
  })
  const dragged = { ...part, sketches }
  const followed = sketches.some(
    (s) =>
      followsSection(s) || s.constraints.some((c) => c.kind === 'linked' && c.profile === sketchId),
  )
  return followed ? settle(dragged) : dragged
}

/** Corners of the section as a sketch finds it, once the sketches before it stand. */
function placesFor(sketch: Sketch, part: Part, settled: readonly Sketch[]): Places {
  if (!followsSection(sketch)) return () => undefined
  const rest = part.sketches.slice(settled.length)
  const state = evaluate({ ...part, sketches: [...settled, ...rest] })
  return placesIn(standingBefore(part, state, sketch.id), sketch, part)
}

/** Where the corners of bodies and the guides of their edges lie; for an end sketch as they are seen from its end. */
function placesIn(bodies: readonly BodyState[], sketch: Sketch, part: Part): Places {
  if (!isEndSketch(sketch)) {
    return (key) =>
      bodies.flatMap((b) => cornersCalled(b.section, [key]))[0]?.at ??
      bodies.flatMap((b) => guidePlace(b.section, key) ?? [])[0]
  }
  const all = marksOf(bodies, sketch, part)
  return (key) => {
    for (const marks of all) {
      const at = endMarkAt(marks, key)
      if (at) return at
    }
    return undefined
  }
}

const marksOf = (
  bodies: readonly BodyState[],
  { plane }: EndSketch,
  { lie }: Part,
): readonly EndMarks[] => bodies.map((b) => endMarks(b.section, b.plan, endPlane(lie, plane)))

/** What an end sketch can build on: the part as its step finds it, seen from the sketch's end. */
export function endMarksBefore(
  part: Part,
  state: PartState,
  sketch: EndSketch,
): readonly EndMarks[] {
  const bodies = standingBefore(part, state, sketch.id).filter((b) => !b.reference)
  return marksOf(bodies, sketch, part)
}

/** The bodies as the step of a sketch finds them; as they are in the end while no step uses it. */
export function standingBefore(part: Part, state: PartState, sketch: string): readonly BodyState[] {
  const at = part.route.findIndex((s) => usesSketch(s) && s.sketch === sketch)
  if (at < 0) return state.bodies
  return at === 0 ? [] : (state.steps[at - 1]?.bodies ?? [])
}

/** Links of a sketch to corners of the section that are gone. */
export function lostCorners(part: Part, state: PartState, sketch: Sketch): readonly string[] {
  if (!followsSection(sketch)) return []
  const places = placesIn(standingBefore(part, state, sketch.id), sketch, part)
  return sketch.constraints.flatMap((c) =>
    c.kind === 'linked' && c.profile === SECTION_ID && !places(c.source) ? [c.id] : [],
  )
}
