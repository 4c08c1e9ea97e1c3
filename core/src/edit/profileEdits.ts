import { fail, succeed, type Result } from '../result'
import { stepsFrom } from '../route'
import { emptySketch, type Constraint, type Sketch, type SketchPlane } from '../sketch'
import type { Part } from '../part'
import type { Command } from './command'

const LONGEST_NAME = 40

/** Adds an empty profile, named with the next free letter. */
export function addSketch(plane: SketchPlane = 'half'): Command {
  return {
    label: plane === 'half' ? 'new profile' : 'new end sketch',
    run: (part) => {
      const names = new Set(part.sketches.map((s) => s.name))
      let n = 0
      while (names.has(letters(n))) n++
      const sketch = emptySketch(`sketch${part.nextId}`, letters(n), plane)
      return succeed({ ...part, nextId: part.nextId + 1, sketches: [...part.sketches, sketch] })
    },
  }
}

/** A, B … Z, AA, AB … */
function letters(n: number): string {
  const last = String.fromCharCode(65 + (n % 26))
  return n < 26 ? last : letters(Math.floor(n / 26) - 1) + last
}

/** Whether a profile is drawn behind the one in hand: unless it is told, as long as no step shows what it has become. */
export const isSketchShown = (part: Part, sketch: Sketch): boolean =>
  sketch.shown ?? !stepsFrom(part.route).has(sketch.id)

/** Names a profile, shows or hides it, or locks it. */
export function changeSketch(
  sketchId: string,
  change: { readonly name?: string; readonly shown?: boolean; readonly locked?: boolean },
): Command {
  return {
    label: labelOf(change),
    run: (part) => {
      const name = change.name?.trim()
      if (name === '') return fail('name.empty', 'A profile needs a name.', 'Type one.')
      if ((name?.length ?? 0) > LONGEST_NAME) {
        const mend = `Keep it under ${LONGEST_NAME} letters.`
        return fail('name.long', 'This name is too long.', mend)
      }
      if (name !== undefined && part.sketches.some((s) => s.id !== sketchId && s.name === name)) {
        return fail('name.taken', `There is a profile called “${name}”.`, 'Choose another name.')
      }
      const next = { ...change, ...(name === undefined ? {} : { name }) }
      const isNews = (s: Sketch): boolean =>
        Object.entries(next).some(([field, to]) => s[field as keyof typeof next] !== to)
      if (!part.sketches.some((s) => s.id === sketchId && isNews(s))) return succeed(part)
      return succeed({
        ...part,
        sketches: part.sketches.map((s) => (s.id === sketchId ? { ...s, ...next } : s)),
      })
    },
  }
}

function labelOf({ name, shown, locked }: Parameters<typeof changeSketch>[1]): string {
  if (name !== undefined) return 'rename profile'
  if (shown !== undefined) return shown ? 'show profile' : 'hide profile'
  return locked === true ? 'lock profile' : 'unlock profile'
}

/**
 * Puts a profile earlier or later in the list. A profile can follow points of those before it, so it stays behind
 * them.
 * @param by how many places on
 */
export function moveSketch(sketchId: string, by: number): Command {
  return {
    label: 'move profile',
    run: (part) => {
      const from = part.sketches.findIndex((s) => s.id === sketchId)
      const sketch = part.sketches[from]
      const to = Math.max(0, Math.min(part.sketches.length - 1, from + by))
      if (!sketch || to === from) return succeed(part)
      const rest = part.sketches.filter((s) => s !== sketch)
      const sketches = [...rest.slice(0, to), sketch, ...rest.slice(to)]
      const wrong = tooEarly(sketches)
      if (wrong) {
        const [later, source] = wrong
        return fail(
          'profile.order',
          `Profile ${later.name} follows points of profile ${source.name}, so it stays behind it.`,
          'Delete the links first, or leave it here.',
        )
      }
      return succeed({ ...part, sketches })
    },
  }
}

/** A profile that comes before one that it follows. */
function tooEarly(sketches: readonly Sketch[]): readonly [Sketch, Sketch] | undefined {
  for (const [i, sketch] of sketches.entries()) {
    const source = sketches
      .slice(i + 1)
      .find((s) => sketch.constraints.some((c) => c.kind === 'linked' && c.profile === s.id))
    if (source) return [sketch, source]
  }
  return undefined
}

/** Deletes a profile that no step is made from. Points that follow its own stay where they are. */
export function removeSketch(sketchId: string): Command {
  return {
    label: 'delete profile',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const refused = sketch && refuseRemoval(part, sketch)
      if (!sketch || refused) return refused ?? succeed(part)
      const rest = part.sketches.filter((s) => s !== sketch).map((s) => withFixed(s, sketchId))
      return succeed({ ...part, sketches: rest })
    },
  }
}

function refuseRemoval(part: Part, { id, name, plane }: Sketch): Result<never> | undefined {
  const numbers = (stepsFrom(part.route).get(id) ?? []).map((s) => s.number)
  if (numbers.length > 0) {
    const steps = `${numbers.length === 1 ? 'step' : 'steps'} ${numbers.join(', ')}`
    const mend = `Delete ${steps} first.`
    return fail('profile.used', `Profile ${name} is what ${steps} is made from.`, mend)
  }
  const isLast = plane === 'half' && part.sketches.filter((s) => s.plane === 'half').length < 2
  return isLast
    ? fail('profile.last', 'A part keeps one profile.', 'Delete what is drawn in it instead.')
    : undefined
}

/** Points that follow another profile's stay where they are. */
function withFixed(sketch: Sketch, gone: string): Sketch {
  const follows = (c: Constraint): boolean => c.kind === 'linked' && c.profile === gone
  if (!sketch.constraints.some(follows)) return sketch
  const constraints = sketch.constraints.map((c): Constraint => {
    if (c.kind !== 'linked' || c.profile !== gone) return c
    const { id, point, x, y } = c
    return { id, kind: 'fixed', point, x, y }
  })
  return { ...sketch, constraints }
}
