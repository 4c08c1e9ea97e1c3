import { perform, type Command } from '../edit'
import { newBody, type Part } from '../part'
import { emptySketch } from '../sketch'

/** A part after a command; undefined where that was refused. */
export function done(part: Part, command: Command): Part | undefined {
  const result = perform(part, command)
  return result.ok ? result.value : undefined
}

/** The part with one more sketch. */
export function withSketch(part: Part): Part {
  const id = `sketch${part.nextId}`
  const name = String.fromCharCode(65 + (part.sketches.length % 26))
  const sketches = [...part.sketches, emptySketch(id, name)]
  return { ...part, nextId: part.nextId + 1, sketches }
}

/** Names of bodies are no longer than this. */
const LONGEST_NAME = 70

/** The part with one more body, its name told apart from those that are there. */
export function withBody(part: Part, name: string, colour = ''): Part {
  const id = `body${part.nextId}`
  const material = part.materials[0]?.id ?? ''
  const names = new Set(part.bodies.map((b) => b.name))
  const wanted = name.trim().slice(0, LONGEST_NAME) || `body ${part.bodies.length + 1}`
  let own = wanted
  for (let n = 2; names.has(own); n++) own = `${wanted} ${n}`
  const body = { ...newBody(id, own, material), colour }
  return { ...part, nextId: part.nextId + 1, bodies: [...part.bodies, body] }
}
