import { lazy, mixed, number, string, type Schema } from 'yup'
import { CONSTRAINT_KINDS, SIZE_KINDS } from '../constraints'
import { NOTE_KINDS } from '../notes'
import { STEP_KINDS } from '../route'
import { FORM_CLASSES, GENERAL_CLASSES } from '../standards'
import {
  BODY_FIGURES,
  LONGEST_PICTURE,
  LOOKS,
  PAPER_NAMES,
  PICK_FIGURES,
  PLAY_FIGURES,
} from '../part'
import {
  byKind,
  coordinate,
  share,
  count,
  exactly,
  flag,
  formula,
  id,
  key,
  list,
  optional,
  record,
  text,
  type Fields,
  type FieldSchema,
} from '../part/fields'
import { extent, titleBlock } from '../part/blockSchema'

const units = record({
  length: exactly('mm', 'cm', 'm', 'in'),
  angle: exactly('deg', 'rad'),
  mass: exactly('g', 'kg', 'lb'),
})

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
      parallel: { id, of: id, from: id, to: id, role },
      curve: { id, from: id, to: id, fromHandle: id, toHandle: id, role },
      spline: {
        ...{ id, way: exactly('through', 'frame'), from: id, to: id, by: list(id), role },
        ...{ fromHandle: text, toHandle: text, spans: list(share) },
      },
    }),
  ),
  constraints: list(constraint),
  sizes: list(size),
  shown: optional(flag),
  locked: optional(flag),
})

const anyStep = { id, number: count, aside: flag }
const step = byKind({
  ...Object.fromEntries(
    Object.entries(STEP_KINDS).map(([kind, { fields }]) => [kind, { ...anyStep, ...fields }]),
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
  everyLimit: optional(flag),
})

const note = byKind(
  Object.fromEntries(
    Object.entries(NOTE_KINDS).map(([kind, { fields }]) => [
      kind,
      { id, body: text, on: key, label, ...fields },
    ]),
  ),
)

const place = record({ x: coordinate, y: coordinate })
const pixels = number().strict().required().integer().min(1).max(20_000)

const line = string().strict().defined().max(200)
const words = string().strict().defined().max(2000)

const sheet = record({
  ...{ id, name: text, body: text },
  paper: exactly('auto', ...PAPER_NAMES),
  upright: flag,
  scale: text,
  projection: exactly('first', 'third'),
  view: exactly('auto', 'outside', 'local', 'half', 'full'),
  long: exactly('auto', 'whole'),
  ends: exactly('auto', 'none', 'left', 'right', 'both'),
  details: exactly('auto', 'none'),
  enlarged: list(record({ id, body: text, corner: key, radius: extent, scale: text })),
  sections: exactly('auto', 'none'),
  picture: exactly('none', 'quarter', 'whole'),
  lengths: exactly('parallel', 'running'),
  origin: exactly('auto', 'left', 'right', 'edge'),
  originAt: optional(record({ body: text, corner: key })),
  balloons: flag,
  lines: exactly('0.5', '0.7'),
  moved: list(record({ id: key, x: coordinate, y: coordinate })),
  hidden: list(key),
  drawn: list(
    record({
      id,
      kind: exactly('along', 'across', 'radial', 'apart', 'radius', 'angle'),
      end: exactly('', 'left', 'right'),
      body: text,
      from: key,
      to: key,
      other: optional(text),
    }),
  ),
})

/** What was measured: a figure, or whether it is good. */
const measured: FieldSchema = lazy((value: unknown) =>
  typeof value === 'number' ? coordinate : exactly('good', 'bad'),
) as FieldSchema

const drawing = record({
  title: record({
    ...{ owner: line, number: line, creator: line, approver: line },
    ...{ date: line, revision: line, status: line },
  }),
  sheets: list(sheet).test('one', 'it needs a sheet', (all) => (all as unknown[]).length > 0),
  revisions: list(
    record({
      ...{ mark: line, words: words, date: line, by: line },
      labels: list(record({ id: key, said: words })),
    }),
  ),
  plan: optional(
    record({
      numbers: list(key),
      pieces: list(record({ id, name: text })),
      measured: list(record({ row: key, piece: id, value: measured })),
      instruments: list(record({ id: key, words: line })),
    }),
  ),
  block: optional(titleBlock),
})

const picture = record({
  data: string()
    .strict()
    .required()
    .max(LONGEST_PICTURE)
    .matches(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/]+=*$/),
  ...{ width: pixels, height: pixels, at: place, across: place, down: place },
  strength: number().strict().required().min(0).max(1),
  shown: flag,
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
  general: optional(exactly(...GENERAL_CLASSES)),
  generalForm: optional(exactly(...FORM_CLASSES)),
  notes: optional(list(note)),
  checks: list(check),
  drawing: optional(drawing),
  picture: optional(picture),
})

/** The kinds of steps this version runs; others are kept as they are. */
export const KNOWN_STEPS: readonly string[] = [...Object.keys(STEP_KINDS), 'unknown']
