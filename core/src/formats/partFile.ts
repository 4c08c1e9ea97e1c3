import { referencesOf } from '../constraints'
import { ValidationError } from 'yup'
import { fail, succeed, type Result } from '../result'
import { settle } from '../route'
import { spanCount } from '../geometry'
import { pointsOf, withParallels, withoutCurves } from '../sketch'
import { PART_VERSION, type Part, type Step } from '../part'
import { isRecord, migrate, MIGRATIONS, type Json } from './migrations'
import { KNOWN_STEPS, partSchema } from './partSchema'

/** Larger files are refused before they are read: a part of 3,000 lines takes about 1 MB. */
export const LARGEST_PART_FILE = 8_000_000

/** Nested deeper than this is no part. */
const DEEPEST = 32

/** A part as the plain document that is stored; steps of unknown kinds are as they were read. */
export function toDocument(part: Part): object {
  return {
    ...part,
    sketches: part.sketches.map(withoutCurves),
    route: part.route.map((step) => (step.kind === 'unknown' ? step.kept : step)),
  }
}

/** A part as the text of a part file: JSON, two spaces to a level, ending in a newline. */
export function writePartFile(part: Part): string {
  return `${JSON.stringify(toDocument(part), null, 2)}\n`
}

/**
 * Reads the text of a part file. Older versions are brought up to date; steps of unknown kinds are
 * kept; everything else that does not fit is refused with a sentence that says where.
 */
export function readPartFile(text: string): Result<Part> {
  if (text.length > LARGEST_PART_FILE) {
    return fail('file.large', 'This file is too large for a part.', 'Check that it is a part file.')
  }
  let document: unknown
  try {
    document = JSON.parse(text)
  } catch (error) {
    return jsonProblem(text, error)
  }
  return readPart(document)
}

/** Reads a part from a parsed document, such as one that came over the network. */
export function readPart(document: unknown): Result<Part> {
  const read = storedPart(document)
  return read.ok ? succeed(settle(read.value)) : read
}

/** The part of a document as it is written there: checked, its sketches not brought to rest. */
export function storedPart(document: unknown): Result<Part> {
  if (!isRecord(document) || document['format'] !== 'lathica-part') {
    return fail(
      'file.format',
      'This is not a part file.',
      'Choose a file that ends in .lathica.json.',
    )
  }
  const hostile = hostileKey(document, 0)
  if (hostile !== undefined) {
    return fail(
      'file.key',
      `The file holds ${hostile}, which no part has.`,
      'Take it out and try again.',
    )
  }
  const migrated = migrate(document, MIGRATIONS, PART_VERSION)
  if (!migrated.ok) return migrated
  const prepared = withUnknownSteps(migrated.value)
  try {
    partSchema.validateSync(prepared, { strict: true, abortEarly: true })
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const path = error.path === undefined || error.path === '' ? 'the file' : `“${error.path}”`
    return fail(
      'file.shape',
      `In ${path}: ${error.message}.`,
      'Mend it there, or use an older copy.',
    )
  }
  const stored = prepared as unknown as Part
  const part = { ...stored, sketches: stored.sketches.map(withParallels) }
  if (part.sketches.some((s, i) => s.entities.length !== stored.sketches[i]?.entities.length)) {
    const told = 'What lies beside a free curve names no curve that is there.'
    return fail('file.reference', told, 'Mend it there, or use an older copy.')
  }
  const broken = brokenReference(part)
  if (broken !== undefined)
    return fail('file.reference', broken, 'Mend it there, or use an older copy.')
  return succeed(part)
}

function jsonProblem(text: string, error: unknown): Result<never> {
  const trimmed = text.trimEnd()
  if (trimmed !== '' && !trimmed.endsWith('}')) {
    const mend = 'Save or copy it again; its end is missing.'
    return fail('file.truncated', 'This file stops before it is complete.', mend)
  }
  const position = /position (\d+)/.exec(error instanceof Error ? error.message : '')?.[1]
  const at =
    position === undefined ? undefined : { from: Number(position), to: Number(position) + 1 }
  const lines = text.slice(0, at?.from ?? 0).split('\n').length
  const where = at ? ` from line ${lines} on` : ''
  return fail('file.json', `This file cannot be read${where}.`, 'Check that it is a part file.', {
    ...(at ? { at } : {}),
  })
}

const HOSTILE = new Set(['__proto__', 'constructor', 'prototype'])

/** A key that could reach into the program's own objects, or too deep a nesting. */
function hostileKey(value: unknown, depth: number): string | undefined {
  if (depth > DEEPEST) return 'a nesting that goes too deep'
  if (typeof value !== 'object' || value === null) return undefined
  for (const [key, inner] of Object.entries(value)) {
    if (HOSTILE.has(key)) return `the key “${key}”`
    if (key.length > 200) return 'a key that is too long'
    const found = hostileKey(inner, depth + 1)
    if (found !== undefined) return found
  }
  return undefined
}

/** Wraps steps of unknown kinds, so that they pass through unchanged. */
function withUnknownSteps(document: Json): Json {
  const { route } = document
  if (!Array.isArray(route)) return document
  const wrapped = route.map((step: unknown, i): unknown => {
    if (!isRecord(step) || typeof step['kind'] !== 'string') return step
    if (KNOWN_STEPS.includes(step['kind'])) return step
    const number = typeof step['number'] === 'number' ? step['number'] : 10 * (i + 1)
    const id = typeof step['id'] === 'string' ? step['id'] : `unknown${i}`
    return { kind: 'unknown', id, number, aside: false, kept: step } satisfies Step
  })
  return { ...document, route: wrapped }
}

/** A sentence about the first reference to something that is not there, or id used twice. */
function brokenReference(part: Part): string | undefined {
  for (const sketch of part.sketches) {
    const points = new Set(sketch.points.map((p) => p.id))
    const known = new Set([...points, ...sketch.entities.map((e) => e.id)])
    if (known.size !== sketch.points.length + sketch.entities.length) {
      return `Profile ${sketch.name} uses an id twice.`
    }
    for (const e of sketch.entities) {
      if (!pointsOf(e).every((p) => points.has(p))) {
        return `In profile ${sketch.name}, “${e.id}” stands on a point that is not there.`
      }
      if (e.kind === 'spline' && e.spans.length !== spanCount(e.way, e.by.length + 2)) {
        return `In profile ${sketch.name}, “${e.id}” has not one share for each of its stretches.`
      }
    }
    for (const item of [...sketch.constraints, ...sketch.sizes]) {
      const lost = referencesOf(item).find((ref) => !known.has(ref))
      if (lost !== undefined) {
        return `In profile ${sketch.name}, “${item.id}” refers to “${lost}”, which is not there.`
      }
    }
  }
  const ids = [part.sketches, part.bodies, part.route, part.checks].flatMap((l) =>
    l.map((x) => x.id),
  )
  return new Set(ids).size === ids.length ? undefined : 'The part uses an id twice.'
}
