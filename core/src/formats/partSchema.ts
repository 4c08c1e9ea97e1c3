import { array, boolean, lazy, mixed, number, object, string, type Schema } from 'yup'
import { CONSTRAINT_KINDS, SIZE_KINDS } from '../constraints'
import { LONGEST_FORMULA } from '../formula'
import { GROOVE_FIELDS } from '../route'
import { LARGEST_LENGTH } from '../tolerances'
import { LARGEST_PACKED } from '../solid'
import {
  BODY_FIGURES,
  LOOKS,
  PICK_FIGURES,
  PLAY_FIGURES,
  type GrooveForm,
  type StepKind,
} from '../part'

/** The most of anything a file may hold: far above any part, far below what would stall a page. */
const MOST_ITEMS = 20_000

const id = string().strict().required().max(64)
/** Names of edges made from edges made from edges grow long. */
const key = string().strict().defined().max(4000)
const text = string().strict().defined().max(120)
const formula = string().strict().defined().max(LONGEST_FORMULA)
const flag = boolean().strict().required()
const coordinate = number().strict().required().min(-LARGEST_LENGTH).max(LARGEST_LENGTH)
const count = number().strict().required().integer().min(0).max(1e9)

const exactly = <T extends string>(...words: readonly T[]): Schema =>
  mixed<T>().required().oneOf(words)

type Fields = Readonly<Record<string, Schema | ReturnType<typeof lazy>>>

/** An object with just these fields; others are refused so that nothing is dropped unseen. */
const record = (fields: Fields): Schema =>
  object(fields as Record<string, Schema>)
    .strict()
    .required()
    .noUnknown()

const list = (item: Schema | ReturnType<typeof lazy>): Schema =>
  array(item as Schema)
    .strict()
    .required()
    .max(MOST_ITEMS)

/** One shape per kind; a kind that is not listed is refused with the names of those that are. */
function byKind(kinds: Readonly<Record<string, Fields>>): ReturnType<typeof lazy> {
  // Each is made once: making a schema takes longer than what it checks.
  const made = new Map<string, Schema>()
  return lazy((value: unknown) => {
    const kind = (value as { kind?: unknown } | null)?.kind
    const key = typeof kind === 'string' && Object.hasOwn(kinds, kind) ? kind : ''
    const schema = made.get(key) ?? record({ ...kinds[key], kind: exactly(...Object.keys(kinds)) })
    made.set(key, schema)
    return schema
  })
}

const units = record({
  length: exactly('mm', 'cm', 'm', 'in'),
  angle: exactly('deg', 'rad'),
  mass: exactly('g', 'kg', 'lb'),
})

/** Present or left out. */
const optional = (schema: Schema): ReturnType<typeof lazy> =>
  lazy((value: unknown) => (value === undefined ? anything : schema))
const anything = mixed()

const label = optional(record({ x: coordinate, y: coordinate }))

/** What each field of a constraint or size holds, as a schema. */
function schemaOf(field: string | readonly string[]): Schema {
  if (typeof field !== 'string') return exactly(...field)
  const found = FIELDS[field]
  if (!found) throw new Error(`A field of a constraint holds “${field}”, which has no schema.`)
  return found
}

const FIELDS: Readonly<Record<string, Schema>> = {
  ...{ id, way: id, other: id, key, coordinate, flag },
  ids: list(id),
  idLists: list(list(id)),
}

/** One shape for each kind of constraint or size, from what its fields hold. */
const byFields = (kinds: typeof CONSTRAINT_KINDS | typeof SIZE_KINDS, more: Fields) =>
  byKind(
    Object.fromEntries(
      Object.entries(kinds).map(([kind, { fields }]) => {
        const named: [string, string | readonly string[]][] = Object.entries(fields)
        const own = named.map(([name, field]) => [name, schemaOf(field)] as const)
        return [kind, { ...more, ...Object.fromEntries(own) }]
      }),
    ),
  )

const constraint = byFields(CONSTRAINT_KINDS, { id })

const size = byFields(SIZE_KINDS, { id, name: id, formula, reference: flag, label })

const role = exactly('outline', 'construction', 'centre')

const sketch = record({
  id,
  name: text,
  plane: exactly('half', 'end', 'lesserEnd'),
  nextId: count,
  points: list(record({ id, x: coordinate, y: coordinate })),
  entities: list(
    byKind({
      line: { id, from: id, to: id, role },
      arc: { id, from: id, to: id, centre: id, counterClockwise: flag, role },
      circle: { id, centre: id, rim: id, role },
      curve: { id, from: id, to: id, fromHandle: id, toHandle: id, role },
    }),
  ),
  constraints: list(constraint),
  sizes: list(size),
})

const anyStep = { id, number: count, aside: flag }
const effect = exactly('add', 'cut', 'common')
const end = exactly('left', 'right')

const cornerPick = byKind({
  corners: { corners: list(key) },
  solid: { edges: list(key) },
  inside: {},
  outside: {},
  step: { step: id },
})

const grooveSizes = optional(formula)

const wholeProfile = exactly('all')
const someAreas = list(list(id))
const regions: ReturnType<typeof lazy> = lazy((value: unknown) =>
  value === 'all' ? wholeProfile : someAreas,
)

const steps: Readonly<Record<StepKind, Fields>> = {
  revolve: {
    sketch: id,
    regions,
    effect,
    body: id,
    axis: id,
    turn: formula,
    turnTo: text,
    side: exactly('one', 'both', 'symmetric'),
    back: formula,
    facets: formula,
    facetTo: exactly('flats', 'corners'),
    phase: formula,
  },
  wall: {
    sketch: id,
    side: exactly('outside', 'inside', 'middle', 'both'),
    thickness: formula,
    inner: formula,
    corners: exactly('sharp', 'round', 'bevelled'),
    ends: exactly('flat', 'round'),
    effect,
    body: id,
    ...{ turn: formula, turnTo: text, turnSide: exactly('one', 'both', 'symmetric') },
    ...{ back: formula, phase: formula },
  },
  groove: {
    body: id,
    on: key,
    form: exactly(...(Object.keys(GROOVE_FIELDS) as GrooveForm[])),
    place: record({
      from: key,
      second: key,
      to: exactly('near', 'middle', 'far'),
      distance: formula,
    }),
    sizes: record(
      Object.fromEntries(
        Object.values(GROOVE_FIELDS)
          .flat()
          .map((name) => [name, grooveSizes]),
      ),
    ),
    count: formula,
    pitch: formula,
  },
  bore: {
    body: id,
    end,
    parts: list(record({ diameter: formula, depth: formula })),
    upTo: key,
    tip: exactly('flat', 'cone'),
    tipAngle: formula,
    sinkDiameter: formula,
    sinkAngle: formula,
  },
  fillet: { body: id, sets: list(record({ pick: cornerPick, radius: formula })) },
  chamfer: {
    body: id,
    sets: list(record({ pick: cornerPick, along: formula, across: formula, angle: formula })),
  },
  shell: {
    body: id,
    side: exactly('inside', 'outside'),
    thickness: formula,
    open: list(key),
    faces: list(record({ edge: key, thickness: formula })),
    corners: exactly('sharp', 'round'),
    follow: exactly('turn', 'solid'),
  },
  mirror: {
    ...{ body: id, way: exactly('across', 'along'), about: key, at: formula },
    ...{ angle: formula, into: id, steps: list(id) },
  },
  move: {
    ...{ body: id, along: formula, turn: formula, beside: formula, towards: formula, into: id },
  },
  combine: { body: id, other: id, effect, keep: flag },
  import: {
    ...{ body: id, file: string().strict().required().max(LARGEST_PACKED), solid: count },
    frame: record({ at: list(coordinate), x: list(coordinate), z: list(coordinate) }),
    ...{ from: coordinate, to: coordinate, radius: coordinate, inner: coordinate },
    outline: list(list(coordinate)),
    planes: list(list(coordinate)),
  },
  mesh: {
    ...{ body: id, mesh: string().strict().required().max(LARGEST_PACKED) },
    ...{ lies: exactly('x', 'y', 'z'), scale: formula, along: formula, turn: formula },
  },
  repeat: { steps: list(id), count: formula, pitch: formula },
  length: { body: id, end, length: formula },
  holes: {
    ...{
      body: id,
      way: exactly('end', 'cross'),
      on: key,
      layout: exactly('circle', 'places', 'sketch'),
    },
    sketch: text,
    ...{ circle: formula, count: formula, start: formula, range: formula },
    skip: list(count),
    places: list(record({ diameter: formula, angle: formula })),
    ...{ from: key, distance: formula, diameter: formula },
    reach: exactly('depth', 'wall', 'through', 'axis'),
    depth: formula,
    tip: exactly('flat', 'cone'),
    tipAngle: formula,
    head: exactly('none', 'counterbore', 'countersink', 'spotface'),
    ...{ headDiameter: formula, headDepth: formula, headAngle: formula, thread: text },
  },
  flats: {
    ...{ body: id, count: formula, measure: exactly('across', 'depth'), size: formula, end },
    ...{ distance: formula, length: formula, phase: formula },
  },
  slot: {
    ...{ body: id, form: exactly('keyway', 'woodruff', 'end'), on: key, from: key },
    ...{ distance: formula, width: formula, depth: formula, length: formula },
    ...{ ends: exactly('round', 'square'), cutter: formula, count: formula, phase: formula },
  },
  extrude: {
    ...{ sketch: id, regions, effect, body: id, plane: formula },
    ...{ side: exactly('one', 'both', 'symmetric'), length: formula, back: formula },
    ...{ on: key, offset: formula, reach: exactly('length', 'through', 'face') },
    ...{ upTo: key, draft: formula },
  },
  sweep: {
    ...{ sketch: id, body: id, effect: exactly('add', 'cut') },
    ...{ form: exactly('round', 'bar', 'sketch'), outline: text },
    ...{ width: formula, height: formula, corner: formula, plane: formula },
    side: exactly('one', 'mirrored'),
  },
  around: { steps: list(id), count: formula, range: formula },
  halve: { body: id, angle: formula, offset: formula, into: text },
}

const step = byKind({
  ...Object.fromEntries(
    Object.entries(steps).map(([kind, fields]) => [kind, { ...anyStep, ...fields }]),
  ),
  unknown: { ...anyStep, kept: mixed().required() },
})

const bodyColour = string()
  .strict()
  .defined()
  .matches(/^(#[0-9a-f]{6})?$/)

const either = (kinds: readonly string[], fields: Fields): Record<string, Fields> =>
  Object.fromEntries(kinds.map((kind) => [kind, fields]))

const figure = byKind({
  ...either(BODY_FIGURES, { body: text }),
  ...either(PICK_FIGURES, { picks: list(record({ body: text, key })) }),
  ...either(PLAY_FIGURES, { body: id, other: id }),
  capacity: { body: id, height: formula },
})

const check = record({
  id,
  name: text,
  figure,
  unit: string().strict().defined().max(20),
  limit: exactly('about', 'least', 'most'),
  target: formula,
  above: formula,
  below: formula,
})

/** The shape of a part, as `docs/part-file.md` tells it. */
export const partSchema = record({
  format: exactly('lathica-part'),
  version: number().strict().required().integer(),
  name: text,
  lie: exactly('lying', 'standing'),
  units,
  nextId: count,
  values: list(
    record({
      name: id,
      measure: exactly('length', 'angle', 'mass', 'density', 'number'),
      formula,
    }),
  ),
  materials: list(
    record({
      id,
      name: text,
      density: number().strict().required().moreThan(0).max(1),
      colour: string()
        .strict()
        .required()
        .matches(/^#[0-9a-f]{6}$/),
      look: exactly(...LOOKS),
    }),
  ),
  bodies: list(
    record({
      ...{ id, name: text, material: id, colour: bodyColour, visible: flag, locked: flag },
      reference: flag,
      look: exactly(...LOOKS, ''),
    }),
  ),
  sketches: list(sketch),
  route: list(step),
  checks: list(check),
})

/** The kinds of steps this version runs; others are kept as they are. */
export const KNOWN_STEPS: readonly string[] = [...Object.keys(steps), 'unknown']
