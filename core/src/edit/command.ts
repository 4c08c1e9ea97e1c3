import { fail, succeed, type Result } from '../result'
import { settle } from '../route'
import type { Part } from '../part'
import { withParallels, type Sketch } from '../sketch'
import { VERTEX_TOLERANCE } from '../tolerances'

/**
 * An edit of a part: a pure function from part to part with a name for undo and redo. Its inverse is
 * the part before it, which the history keeps; parts share what they have in common.
 */
export interface Command {
  /** What it does, as in “undo: draw line”. */
  readonly label: string
  readonly run: (part: Part) => Result<Part>
}

/** Runs a command and brings every sketch to rest. */
export function perform(part: Part, command: Command): Result<Part> {
  const edited = command.run(part)
  if (!edited.ok) return edited
  const settled = settle(besideCurves(edited.value))
  return refuseLocked(part, settled) ?? succeed(settled)
}

/** The part with what lies beside curves beside them as the edit has left them. */
function besideCurves(part: Part): Part {
  const sketches = part.sketches.map(withParallels)
  return sketches.every((s, i) => s === part.sketches[i]) ? part : { ...part, sketches }
}

/** Refuses an edit that changes a locked profile otherwise than by what it follows. */
export function refuseLocked(before: Part, after: Part): Result<never> | undefined {
  for (const sketch of before.sketches) {
    if (sketch.locked !== true) continue
    const now = after.sketches.find((s) => s.id === sketch.id)
    if (now && isHeld(sketch, now) && isLedThere(sketch, now, after)) continue
    return fail(
      'profile.locked',
      `Profile ${sketch.name} is locked.`,
      'Unlock it in the list of profiles.',
    )
  }
  return undefined
}

/** Whether the same things are drawn, with the same constraints and sizes on them. */
const isHeld = (a: Sketch, b: Sketch): boolean =>
  a.entities === b.entities && a.sizes === b.sizes && areAlike(a.constraints, b.constraints)

/** Links are told anew where they lead; what they link stays. */
const areAlike = (a: Sketch['constraints'], b: Sketch['constraints']): boolean =>
  a === b ||
  (a.length === b.length &&
    a.every((c, i) => c === b[i] || (c.kind === 'linked' && c.id === b[i]?.id)))

/** Whether its points stand where values and links lead them from where they stood. */
function isLedThere(sketch: Sketch, now: Sketch, after: Part): boolean {
  if (sketch.points === now.points) return true
  const led = settle(withSketch(after, { ...now, points: sketch.points }))
  const places = led.sketches.find((s) => s.id === sketch.id)?.points ?? []
  return now.points.every(({ id, x, y }, i) => {
    const place = places[i]
    if (place?.id !== id) return false
    return Math.hypot(place.x - x, place.y - y) < VERTEX_TOLERANCE
  })
}

/** A command that changes one sketch. */
export function sketchCommand(
  label: string,
  sketchId: string,
  edit: (sketch: Sketch, part: Part) => Result<Sketch>,
): Command {
  return {
    label,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const edited = edit(sketch, part)
      return edited.ok ? succeed(withSketch(part, edited.value)) : edited
    },
  }
}

export function withSketch(part: Part, sketch: Sketch): Part {
  return { ...part, sketches: part.sketches.map((s) => (s.id === sketch.id ? sketch : s)) }
}
