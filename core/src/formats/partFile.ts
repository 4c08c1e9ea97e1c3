import { referencesOf } from '../constraints'
import { ValidationError } from 'yup'
import { fail, succeed, type Result } from '../result'
import { settle } from '../route'
import { splitTolerance } from '../formula'
import { spanCount } from '../geometry'
import { pointsOf, withParallels, withoutCurves } from '../sketch'
import { PART_VERSION, STOCK_MATERIALS, type Look, type Part, type Step } from '../part'
import { KNOWN_STEPS, partSchema } from './partSchema'

/** Larger files are refused before they are read: a part of 3,000 lines takes about 1 MB. */
export const LARGEST_PART_FILE = 8_000_000

/** Nested deeper than this is no part. */
const DEEPEST = 32

type Json = Readonly<Record<string, unknown>>

/**
 * How a document of each older version becomes one of the next: `MIGRATIONS.get(n)` takes version n
 * to n + 1.
 */
export type Migrations = ReadonlyMap<number, (document: Json) => Json>

const MIGRATIONS: Migrations = new Map([
  [1, withCurves],
  [2, withTurnedSteps],
  [3, withChecks],
  [4, withSolidSteps],
  [5, withEndSketches],
  [6, withMeshes],
  // Version 8 knows free curves; nothing that was there changed.
  [7, (document) => document],
  // Version 9 knows single stretches of edges of solids.
  [8, (document) => document],
  [9, withPlanes],
  // Version 11 knows free curves of many places.
  [10, (document) => document],
  // Version 12 knows curves that go on without a jump of curvature.
  [11, (document) => document],
  // Version 13 knows profiles that are hidden, shown or locked, sizes of free curves, and what lies beside them.
  [12, (document) => document],
  [13, withPlainSums],
  [14, withWiderNotes],
  // Version 16 knows how the part is drawn on its sheet.
  [15, (document) => document],
  [16, withSheets],
  [17, withEnlarged],
  [18, withDrawnEnds],
])

/** The sheets of a document with more in each. */
function withMore(document: Json, more: (sheet: Json) => Json): Json {
  const { drawing } = document
  if (!isRecord(drawing) || !Array.isArray(drawing['sheets'])) return document
  const sheets: unknown[] = drawing['sheets']
  return {
    ...document,
    drawing: {
      ...drawing,
      sheets: sheets.map((s) => (isRecord(s) ? { ...s, ...more(s) } : s)),
    },
  }
}

/** Version 19 knows sizes that are drawn on the view from an end. */
function withDrawnEnds(document: Json): Json {
  return withMore(document, ({ drawn }) => {
    if (!Array.isArray(drawn)) return {}
    const sizes: unknown[] = drawn
    return { drawn: sizes.map((d) => (isRecord(d) ? { ...d, end: '' } : d)) }
  })
}

/** Version 18 knows title blocks of one’s own, places that are drawn larger, and long stretches that are broken. */
function withEnlarged(document: Json): Json {
  return withMore(document, () => ({ long: 'auto', enlarged: [] }))
}

/** Version 17 knows several sheets, sections across, revisions and the inspection plan. */
function withSheets({ sheet, ...document }: Json): Json {
  if (!isRecord(sheet)) return document
  const { title, ...own } = sheet
  const more = {
    ...{ sections: 'auto', picture: 'none', lengths: 'parallel', origin: 'auto' },
    ...{ balloons: false, hidden: [], drawn: [] },
  }
  const first = { id: 'sheet', name: '', body: '', ...own, ...more }
  return { ...document, drawing: { title, sheets: [first], revisions: [] } }
}

/** Version 15 knows allowances and processes of surfaces, and projected zones; and knurls, edges, colours, centre holes. */
function withWiderNotes(document: Json): Json {
  const { notes } = document
  if (!Array.isArray(notes)) return document
  const more: Readonly<Record<string, object>> = {
    surface: { allowance: '', process: '' },
    frame: { projected: '' },
    text: { flag: false },
  }
  const wider = (note: unknown): unknown =>
    isRecord(note) ? { ...note, ...more[String(note['kind'])] } : note
  return { ...document, notes: notes.map(wider) }
}

/**
 * Version 14 knows tolerances behind values, as in `40 +0.1 0`. A sum that was written like one gets a space behind its
 * signs, so that it goes on being one.
 */
function withPlainSums(document: Json): Json {
  const spaced = (value: unknown, name: string): unknown => {
    if (typeof value === 'string') {
      if (NO_FORMULAS.has(name) || splitTolerance(value).tolerance?.kind !== 'both') return value
      return value.replace(/(\s)([+\-−–])(?=[\d.,])/gu, '$1$2 ')
    }
    if (Array.isArray(value)) return value.map((item: unknown) => spaced(item, name))
    if (!isRecord(value)) return value
    return Object.fromEntries(Object.entries(value).map(([key, v]) => [key, spaced(v, key)]))
  }
  return spaced(document, '') as Json
}

/** Fields whose texts are read by people alone. */
const NO_FORMULAS: ReadonlySet<string> = new Set(['name', 'thread', 'data'])

/** Version 2 knows arcs: points lie on curves, and curves are equal, where lines were. */
function withCurves(document: Json): Json {
  const renamed = (constraint: unknown): unknown => {
    if (!isRecord(constraint)) return constraint
    const { kind, line, ...rest } = constraint
    if (kind === 'pointOnLine') return { ...rest, kind: 'pointOn', curve: line }
    return kind === 'equal' ? { ...rest, kind, curve: line } : constraint
  }
  const sketch = (old: unknown): unknown =>
    isRecord(old) && Array.isArray(old['constraints'])
      ? { ...old, constraints: old['constraints'].map(renamed) }
      : old
  const { sketches } = document
  return Array.isArray(sketches) ? { ...document, sketches: sketches.map(sketch) } : document
}

/** Version 3 knows cuts and bodies with a look of their own. */
function withTurnedSteps(document: Json): Json {
  const { bodies, route } = document
  const body = (old: unknown): unknown =>
    isRecord(old) ? { ...old, colour: '', visible: true, locked: false } : old
  const step = (old: unknown): unknown =>
    isRecord(old) && old['kind'] === 'revolve' ? { ...old, axis: 'axis', turn: '', facets: 0 } : old
  return {
    ...document,
    ...(Array.isArray(bodies) ? { bodies: bodies.map(body) } : {}),
    ...(Array.isArray(route) ? { route: route.map(step) } : {}),
  }
}

/** Version 4 knows an inspection sheet, and how surfaces take the light. */
function withChecks(document: Json): Json {
  const { bodies, materials } = document
  const look = (old: unknown): Look =>
    STOCK_MATERIALS.find((m) => isRecord(old) && m.id === old['id'])?.look ?? 'metal'
  const withLook = (list: unknown, of: (old: unknown) => Look | ''): unknown =>
    Array.isArray(list)
      ? list.map((old: unknown) => (isRecord(old) ? { ...old, look: of(old) } : old))
      : list
  return {
    ...document,
    ...(bodies === undefined ? {} : { bodies: withLook(bodies, () => '') }),
    ...(materials === undefined ? {} : { materials: withLook(materials, look) }),
    checks: [],
  }
}

/** Version 5 knows steps that are no full turn, and how part turns and polygons lie. */
function withSolidSteps(document: Json): Json {
  return withSteps(document, (old) => {
    if (old['kind'] !== 'revolve') return old
    const { facets } = old
    const sides = typeof facets === 'number' && facets > 0 ? String(facets) : ''
    return { ...old, facets: sides, side: 'one', back: '', facetTo: 'flats', phase: '' }
  })
}

/** Version 6 knows sketches square to the axis, extrusions that begin there and lean, images along the axis, and bodies to go by. */
function withEndSketches(document: Json): Json {
  const { sketches, bodies, route } = document
  const step = (old: unknown): unknown => {
    if (!isRecord(old)) return old
    if (old['kind'] === 'holes') return { ...old, sketch: '' }
    if (old['kind'] === 'revolve') return { ...old, turnTo: '' }
    if (old['kind'] === 'shell') return { ...old, follow: 'turn' }
    if (old['kind'] === 'wall') {
      return { ...old, turn: '', turnTo: '', turnSide: 'one', back: '', phase: '' }
    }
    if (old['kind'] === 'mirror') return { ...old, way: 'across', angle: '' }
    const more = { on: '', offset: '', reach: 'length', upTo: '', draft: '' }
    return old['kind'] === 'extrude' ? { ...old, ...more } : old
  }
  const sketch = (old: unknown): unknown => (isRecord(old) ? { ...old, plane: 'half' } : old)
  const body = (old: unknown): unknown => (isRecord(old) ? { ...old, reference: false } : old)
  return {
    ...document,
    ...(Array.isArray(sketches) ? { sketches: sketches.map(sketch) } : {}),
    ...(Array.isArray(bodies) ? { bodies: bodies.map(body) } : {}),
    ...(Array.isArray(route) ? { route: route.map(step) } : {}),
  }
}

/** Version 7 knows meshes to go by, sketches seen from the lesser end, images of steps, drawn rods, and half-sections of what came. */
function withMeshes(document: Json): Json {
  return withSteps(document, (old) => {
    if (old['kind'] === 'mirror') return { ...old, steps: [] }
    if (old['kind'] === 'import') return { ...old, outline: [] }
    return old['kind'] === 'sweep' ? { ...old, outline: '' } : old
  })
}

/** Version 10 knows the plane faces of what came, and how near it comes to the axis. */
function withPlanes(document: Json): Json {
  return withSteps(document, (old) =>
    old['kind'] === 'import' ? { ...old, inner: 0, planes: [] } : old,
  )
}

/** A document with all its steps changed. */
function withSteps(document: Json, change: (step: Json) => Json): Json {
  const { route } = document
  const step = (old: unknown): unknown => (isRecord(old) ? change(old) : old)
  return Array.isArray(route) ? { ...document, route: route.map(step) } : document
}

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

/** Takes a document step by step from its version to the wanted one. */
export function migrate(document: Json, migrations: Migrations, wanted: number): Result<Json> {
  let here = document
  for (;;) {
    const version = here['version']
    if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
      return fail('file.version', 'The file does not say its version.', 'Add "version": 1.')
    }
    if (version === wanted) return succeed(here)
    if (version > wanted) {
      return fail(
        'file.newer',
        `This file was made by a newer version (${version}; this one reads up to ${wanted}).`,
        'Open it with the newer version.',
      )
    }
    const step = migrations.get(version)
    if (!step) return fail('file.version', `Version ${version} is not known.`, 'Use a newer copy.')
    here = { ...step(here), version: version + 1 }
  }
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

function isRecord(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
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
