import { fail, succeed, type Result } from '../result'
import { settle } from '../route'
import type { Part } from '../part'
import type { Sketch } from '../sketch'

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
  return edited.ok ? succeed(settle(edited.value)) : edited
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
