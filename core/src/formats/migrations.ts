import { splitTolerance } from '../formula'
import { STOCK_MATERIALS, type Look } from '../part'
import { fail, succeed, type Result } from '../result'

export type Json = Readonly<Record<string, unknown>>

/**
 * How a document of each older version becomes one of the next: `MIGRATIONS.get(n)` takes version n
 * to n + 1.
 */
export type Migrations = ReadonlyMap<number, (document: Json) => Json>

export const MIGRATIONS: Migrations = new Map([
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

export function isRecord(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
