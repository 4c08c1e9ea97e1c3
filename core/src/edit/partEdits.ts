import { isReservedName } from '../formula'
import type { FormClass, GeneralClass } from '../standards'
import { fail, succeed, type Result } from '../result'
import { refuseMaterial, valuesOf, type Material, type NamedValue, type Part } from '../part'
import type { Command } from './command'

const MOST_NAME_LENGTH = 80

export function renamePart(name: string): Command {
  return {
    label: 'rename part',
    run: (part) => {
      const trimmed = name.trim()
      if (trimmed === '') return fail('name.empty', 'A part needs a name.', 'Type one.')
      if (trimmed.length > MOST_NAME_LENGTH) {
        return fail(
          'name.long',
          'This name is too long.',
          `Keep it under ${MOST_NAME_LENGTH} letters.`,
        )
      }
      return succeed(trimmed === part.name ? part : { ...part, name: trimmed })
    },
  }
}

/** Gives a body a material; materials no body has any more leave the part. */
export function setMaterial(bodyId: string, material: Material): Command {
  return {
    label: 'change material',
    run: (part) => {
      const bodies = part.bodies.map((b) => (b.id === bodyId ? { ...b, material: material.id } : b))
      const all = [...part.materials.filter((m) => m.id !== material.id), material]
      return succeed({
        ...part,
        bodies,
        materials: all.filter((m) => bodies.some((b) => b.material === m.id)),
      })
    },
  }
}

/** Changes a material for every body that has it. */
export function changeMaterial(material: Material): Command {
  return {
    label: `change ${material.name}`,
    run: (part) =>
      refuseMaterial(material) ??
      succeed({
        ...part,
        materials: part.materials.map((m) => (m.id === material.id ? material : m)),
      }),
  }
}

/** Says how far sizes without tolerances of their own may be off; undefined to say nothing. */
export const setGeneral = (general: GeneralClass | undefined): Command =>
  withOwn('set general tolerances', 'general', general)

/** Says how far forms and positions without tolerances of their own may be off; undefined to say nothing. */
export const setGeneralForm = (generalForm: FormClass | undefined): Command =>
  withOwn('set general tolerances of form', 'generalForm', generalForm)

/** Gives the part something that it may be without, or takes it away. */
function withOwn<K extends 'general' | 'generalForm'>(
  label: string,
  key: K,
  value: Part[K] | undefined,
): Command {
  return {
    label,
    run: (part) => {
      if (part[key] === value) return succeed(part)
      const { [key]: _, ...rest } = part
      return succeed((value === undefined ? rest : { ...rest, [key]: value }) as Part)
    },
  }
}

/** Adds a named value, or changes the one of that name. */
export function setValue(value: NamedValue, formerName: string = value.name): Command {
  return {
    label: `set ${value.name}`,
    run: (part) => {
      const bad = refuseName(part, value.name, formerName)
      if (bad) return bad
      const exists = part.values.some((v) => v.name === formerName)
      const values = exists
        ? part.values.map((v) => (v.name === formerName ? value : v))
        : [...part.values, value]
      const next = { ...part, values }
      const problem = valuesOf(next).problems.get(value.name)
      return problem ? { ok: false, problem } : succeed(next)
    },
  }
}

function refuseName(part: Part, name: string, formerName: string): Result<never> | undefined {
  if (!/^[A-Za-z_][A-Za-z0-9_]{0,39}$/.test(name)) {
    const mend = 'Use letters, digits and _, with a letter first, as in bore or wall_2.'
    return fail('value.name', `“${name}” cannot be a name.`, mend)
  }
  if (isReservedName(name)) {
    return fail('value.reserved', `“${name}” is a unit or a function.`, 'Choose another name.')
  }
  const taken =
    part.values.some((v) => v.name === name && v.name !== formerName) ||
    part.sketches.some((s) => s.sizes.some((size) => size.name === name))
  return taken
    ? fail('value.taken', `There is a value called “${name}” already.`, 'Choose another name.')
    : undefined
}

export function removeValue(name: string): Command {
  return {
    label: `delete ${name}`,
    run: (part) => succeed({ ...part, values: part.values.filter((v) => v.name !== name) }),
  }
}
