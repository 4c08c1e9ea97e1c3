import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  METRIC,
  PART_VERSION,
  addStep,
  createPart,
  edgesOf,
  evaluate,
  extrudeOf,
  migrate,
  PLAIN_DRAWING,
  PLAIN_SHEET,
  offeredGroove,
  offeredStep,
  offeredSweep,
  readPart,
  readPartFile,
  revolveOf,
  solve,
  writePartFile,
  type NewStep,
  type Part,
  type SheetSetup,
  type Step,
} from '../src'
import { steppedSketch } from './support/chains'
import { must } from './support/parts'

function spindle(): Part {
  const { sketch } = steppedSketch([
    { diameter: 20, length: 24 },
    { diameter: 44, length: 8 },
  ])
  const sizes = sketch.sizes.map((s, i) => ({ ...s, formula: ['20', '24', '44', '8'][i] ?? '' }))
  return {
    ...createPart({ name: 'Spindle' }),
    nextId: 4,
    sketches: [{ ...sketch, id: 'sketch2', sizes }],
    route: [
      { ...revolveOf('sketch2', 'body1', 'add'), id: 'step3', number: 10, aside: false } as Step,
    ],
  }
}

const code = (text: string): string => {
  const result = readPartFile(text)
  if (result.ok) return 'read'
  expect(result.problem.mend).not.toBe('')
  return result.problem.code
}

const changed = (change: (document: Record<string, unknown>) => void): string => {
  const document = JSON.parse(writePartFile(spindle())) as Record<string, unknown>
  change(document)
  return JSON.stringify(document)
}

describe('part files', () => {
  it('come back as they were written', () => {
    const part = spindle()
    const read = readPartFile(writePartFile(part))
    expect(read).toEqual({ ok: true, value: part })
    expect(read.ok && evaluate(read.value).bodies[0]?.mass).toBeCloseTo(
      7.85e-3 * Math.PI * (100 * 24 + 22 * 22 * 8),
      9,
    )
  })

  it('are solved when read, so that hand-made changes take hold', () => {
    const text = writePartFile(spindle()).replace('"formula": "24"', '"formula": "2 in"')
    const read = readPartFile(text)
    if (!read.ok) throw new Error(read.problem.message)
    expect(evaluate(read.value).bodies[0]?.solid?.to).toBeCloseTo(58.8, 9)
    expect(solve(read.value.sketches[0] ?? (undefined as never), new Map()).solved).toBe(true)
  })

  it('keep steps of kinds they do not know, and say so', () => {
    const knurl = { kind: 'knurl', id: 'k', number: 20, pitch: 0.8, pattern: { angle: 30 } }
    const read = readPartFile(changed((d) => (d['route'] as unknown[]).push(knurl)))
    if (!read.ok) throw new Error(read.problem.message)
    const state = evaluate(read.value)
    expect(state.steps.map((s) => s.status)).toEqual(['done', 'failed'])
    expect(state.steps[1]?.problem?.message).toContain('knurl')
    expect((JSON.parse(writePartFile(read.value)) as Part).route[1]).toEqual(knurl)
  })

  it.each([
    ['cut short', writePartFile(spindle()).slice(0, 700), 'file.truncated'],
    ['garbled', writePartFile(spindle()).replace('"name"', '"name'), 'file.json'],
    ['of another kind', '{"format": "other"}', 'file.format'],
    ['not an object', '[1, 2]', 'file.format'],
    [
      'of a newer version',
      changed((d) => Object.assign(d, { version: PART_VERSION + 1 })),
      'file.newer',
    ],
    ['without a version', changed((d) => Object.assign(d, { version: 'x' })), 'file.version'],
    [
      'with a hostile key',
      writePartFile(spindle()).replace('"lie"', '"__proto__": {"a": 1}, "lie"'),
      'file.key',
    ],
    [
      'nested without end',
      `{"format":"lathica-part","x":${'['.repeat(99)}${']'.repeat(99)}}`,
      'file.key',
    ],
    ['with a wrong field', changed((d) => Object.assign(d, { lie: 'flying' })), 'file.shape'],
    ['with a field too many', changed((d) => Object.assign(d, { extra: 1 })), 'file.shape'],
    [
      'with an endless number',
      writePartFile(spindle()).replace('"y": 10', '"y": 1e999'),
      'file.shape',
    ],
    [
      'with a lost point',
      changed((d) => (d['sketches'] as { points: unknown[] }[])[0]?.points.pop()),
      'file.reference',
    ],
    ['huge', ' '.repeat(9_000_000), 'file.large'],
  ])('that are %s are refused with a sentence', (_, text, expected) => {
    expect(code(text)).toBe(expected)
  })

  it('say in which field something is wrong', () => {
    const result = readPartFile(changed((d) => Object.assign(d, { lie: 'flying' })))
    expect(result.ok ? '' : result.problem.message).toContain('“lie”')
  })

  it('never throw, whatever byte is lost or doubled', () => {
    const text = writePartFile(spindle())
    fc.assert(
      fc.property(fc.nat(text.length - 1), fc.nat(8), fc.boolean(), (at, count, twice) => {
        const broken = text.slice(0, twice ? at + count : at) + text.slice(twice ? at : at + count)
        const result = readPartFile(broken)
        return result.ok ? evaluate(result.value).bodies.length > 0 : result.problem.message !== ''
      }),
      { numRuns: 400 },
    )
  })

  it('of the version before cuts came are read, and every kind of step comes back', () => {
    const document = JSON.parse(writePartFile(spindle())) as {
      version: number
      bodies: Record<string, unknown>[]
      route: Record<string, unknown>[]
    }
    document.version = 2
    for (const name of ['colour', 'visible', 'locked']) delete document.bodies[0]?.[name]
    for (const name of ['axis', 'turn', 'facets']) delete document.route[0]?.[name]
    const read = readPart(document)
    expect(read.ok && read.value).toEqual(spindle())
    const { section } = evaluate(spindle()).bodies[0] ?? { section: { regions: [] } }
    const [edge] = edgesOf(section)
    if (!edge) throw new Error('no edge')
    const kinds = ['bore', 'fillet', 'chamfer', 'shell', 'mirror', 'repeat', 'length'] as const
    const steps = [
      ...kinds.map((kind) => offeredStep(kind, 'body1', section, 'step3', METRIC)),
      offeredGroove('body1', edge, 'relief', METRIC),
    ]
    const part = steps.reduce((here, step) => must(here, addStep(step)), spindle())
    const back = readPartFile(writePartFile(part))
    expect(back.ok && back.value.route).toEqual(part.route)
  })

  it('are brought up to date one version at a time', () => {
    type Json = Readonly<Record<string, unknown>>
    const steps = new Map<number, (d: Json) => Json>([
      [1, (d) => ({ ...d, first: true })],
      [2, (d) => ({ ...d, second: d['first'] })],
    ])
    expect(migrate({ version: 1 }, steps, 3)).toEqual({
      ok: true,
      value: { version: 3, first: true, second: true },
    })
    expect(readPart(null).ok).toBe(false)
  })

  it('of the version before sizes on ends have those that were drawn on the view along the axis', () => {
    const sheet = {
      ...PLAIN_SHEET,
      drawn: [{ id: 'drawn9', kind: 'across', end: '', body: 'body1', from: 'a', to: 'a' }],
    } as SheetSetup
    const drawing = { ...PLAIN_DRAWING, sheets: [sheet] }
    const old = JSON.parse(writePartFile({ ...spindle(), drawing })) as {
      version: number
      drawing: { sheets: { drawn: Record<string, unknown>[] }[] }
    }
    old.version = 18
    delete old.drawing.sheets[0]?.drawn[0]?.['end']
    const read = readPart(old)
    if (!read.ok) throw new Error(read.problem.message)
    expect(read.value.drawing).toEqual(drawing)
  })

  it('of the version before plane faces of what came tell none, and that it may reach to the axis', () => {
    const place = [0, 0, 0] as const
    const came = {
      ...{ kind: 'import', body: 'body1', file: 'x', solid: 0, outline: [] },
      frame: { at: place, x: [1, 0, 0] as const, z: [0, 0, 1] as const },
      ...{ from: 0, to: 8, radius: 5, inner: 2, planes: [[1, 0, 0, 8, 0, 0, -1]] },
    } as NewStep
    const old = JSON.parse(writePartFile(must(spindle(), addStep(came)))) as {
      version: number
      route: Record<string, unknown>[]
    }
    old.version = 9
    for (const step of old.route) {
      delete step['inner']
      delete step['planes']
    }
    const read = readPart(old)
    if (!read.ok) throw new Error(read.problem.message)
    expect(read.value.route.at(-1)).toMatchObject({ kind: 'import', inner: 0, planes: [] })
  })

  it('of the version before inspection sheets get an empty one, and looks from their materials', () => {
    const old = JSON.parse(writePartFile(spindle())) as {
      version: number
      checks?: unknown
      materials: { look?: unknown; id: string }[]
      bodies: { look?: unknown }[]
    }
    old.version = 3
    delete old.checks
    const [material] = old.materials
    if (material) material.id = 'glass'
    for (const owner of [...old.materials, ...old.bodies]) delete owner.look
    const read = readPart(old)
    if (!read.ok) throw new Error(read.problem.message)
    expect(read.value.checks).toEqual([])
    expect(read.value.materials[0]?.look).toBe('glass')
    expect(read.value.bodies[0]?.look).toBe('')
  })

  it('of the version before end sketches lie in the half-section, and extrusions go by a length', () => {
    const part = spindle()
    const own = part.sketches[0]?.id ?? ''
    const extrude = extrudeOf(own, 'body1', 'add', { regions: [] }, part.units)
    const grown = must(part, addStep(extrude, 1))
    type Loose = Record<string, unknown>
    const old = JSON.parse(writePartFile(grown)) as Loose & { sketches: Loose[]; route: Loose[] }
    old['version'] = 5
    for (const sketch of old.sketches) delete sketch['plane']
    for (const name of ['on', 'offset', 'reach', 'upTo', 'draft']) delete old.route[1]?.[name]
    const read = readPart(old)
    if (!read.ok) throw new Error(read.problem.message)
    expect(read.value.sketches.map((s) => s.plane)).toEqual(['half'])
    expect(read.value.route[1]).toEqual(grown.route[1])
    expect(read.value).toEqual(grown)
  })

  it('of the version before meshes came mirror whole bodies, and carry plain rods', () => {
    const part = spindle()
    const own = part.sketches[0]?.id ?? ''
    const mirror = offeredStep('mirror', 'body1', { regions: [] }, undefined, part.units)
    const sweep = offeredSweep(own, 'body1', { regions: [] }, false, part.units)
    const grown = must(part, addStep(mirror, 1), addStep(sweep, 2))
    type Loose = Record<string, unknown>
    const old = JSON.parse(writePartFile(grown)) as Loose & { route: Loose[] }
    old['version'] = 6
    delete old.route[1]?.['steps']
    delete old.route[2]?.['outline']
    const read = readPart(old)
    expect(read.ok && read.value).toEqual(grown)
  })
})
