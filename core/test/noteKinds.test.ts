import { describe, expect, test } from 'vitest'
import { addRevolve, addStep, drawChain } from '@lathica/core/edit'
import {
  addNote,
  bevelThread,
  changeNote,
  cutUndercut,
  noteStates,
  noteWhere,
  notesOf,
  offeredNote,
  readEdge,
  undercutStep,
} from '@lathica/core/notes'
import { createPart, type NewNote, type Part, type ThreadNote } from '@lathica/core/part'
import { callsOf, evaluate, stepRules } from '@lathica/core/route'
import {
  cornersOf,
  edgeKey,
  edgesOf,
  solidProperties,
  type SectionEdge,
} from '@lathica/core/section'
import { readPart, toDocument } from '@lathica/core/formats'
import { centreHole } from '@lathica/core/standards'
import { must } from './support/parts'

const SKETCH = 'sketch2'
const BODY = 'body1'
const at = (x: number, y: number, more: object = {}) => ({ at: { x, y }, ...more })

/** ⌀16 from 0 to 20, a collar of ⌀30 from there to 50, ⌀16 again to 80; or ⌀16 on the right alone. */
function shaft(): Part {
  return must(
    createPart({ name: 'Winding spindle' }),
    drawChain(
      SKETCH,
      [
        at(0, 0, { on: ['axis'] }),
        ...[at(0, 8), at(20, 8), at(20, 15), at(50, 15), at(50, 8), at(80, 8)],
        at(80, 0, { on: ['axis'] }),
      ],
      [['radial'], ['axial'], ['radial'], ['axial'], ['radial'], ['axial'], ['radial']],
    ),
    addRevolve(SKETCH),
  )
}
const edges = (part: Part): readonly SectionEdge[] => {
  const [body] = evaluate(part).bodies
  return body ? edgesOf(body.section) : []
}
const faceAt = (part: Part, x: number, y: number): string => {
  const found = edges(part).find(
    ({ piece: { from, to } }) =>
      Math.hypot((from.x + to.x) / 2 - x, (from.y + to.y) / 2 - y) < 0.01,
  )
  if (!found) throw new Error(`no face at ${x}`)
  return edgeKey(found.name)
}
const cornerAt = (part: Part, x: number, y: number): string => {
  const [body] = evaluate(part).bodies
  const found =
    body && cornersOf(body.section).find((c) => Math.hypot(c.at.x - x, c.at.y - y) < 0.01)
  if (!found) throw new Error(`no corner at ${x}`)
  return found.key
}
const said = (part: Part): readonly string[] =>
  noteStates(evaluate(part)).map((s) => (s.problem ? `${s.words}: ${s.problem.code}` : s.words))
const one = (part: Part, note: object): string =>
  said(must(part, addNote({ body: BODY, ...note } as NewNote))).at(-1) ?? ''
const volume = (part: Part): number => {
  const [body] = evaluate(part).bodies
  return (body && solidProperties(body.section)?.volume) ?? 0
}
const failed = (part: Part): readonly string[] =>
  evaluate(part).steps.flatMap((s) => (s.problem ? [s.problem.code] : []))

describe('an undercut and a chamfer by one press', () => {
  const thread = (on: string, callout = 'M16x1.5-6g'): ThreadNote => ({
    ...{ kind: 'thread', id: 'n', body: BODY, on, callout, from: 'left', length: '' },
  })

  test.each([
    ['right', 15.5, 20],
    ['left', 54.5, 50],
  ] as const)('against a shoulder on its %s', (side, start, square) => {
    const part = shaft()
    const on = faceAt(part, side === 'right' ? 10 : 65, 8)
    const cut = must(part, cutUndercut(thread(on)))
    expect(failed(cut)).toEqual([])
    // ISO 4755 for a pitch of 1.5: ⌀13.7, 4.5 wide, square against the shoulder, 30° where it runs out.
    const made = edges(cut).filter((e) => e.name.role === 'made')
    const xs = made.flatMap(({ piece }) => [piece.from.x, piece.to.x])
    expect(Math.min(...xs)).toBeCloseTo(Math.min(start, square), 9)
    expect(Math.max(...xs)).toBeCloseTo(Math.max(start, square), 9)
    expect(Math.min(...made.flatMap(({ piece }) => [piece.from.y, piece.to.y]))).toBeCloseTo(
      6.85,
      9,
    )
    const slope = made.find(
      ({ piece: { kind, from, to } }) =>
        kind === 'line' && Math.abs(from.x - to.x) > 0.1 && Math.abs(from.y - to.y) > 0.1,
    )
    const ends = [slope?.piece.from.x ?? 0, slope?.piece.to.x ?? 0]
    expect(ends.some((x) => Math.abs(x - start) < 1e-9)).toBe(true)
    // A land that is cut already still has its thread.
    const noted = must(cut, addNote({ ...thread(on) }))
    expect(said(noted)).toEqual(['M16×1.5-6g'])
  })

  test('and the bevel at the other end', () => {
    const part = shaft()
    const note = thread(faceAt(part, 10, 8))
    const bevelled = must(part, bevelThread(note))
    expect(failed(bevelled)).toEqual([])
    // (16 − 14.16) / 2 = 0.92: the next tenth is 1.
    const bevel = edges(bevelled).find(({ name }) => name.role === 'made')?.piece
    expect(Math.abs((bevel?.from.x ?? 0) - (bevel?.to.x ?? 0))).toBeCloseTo(1, 9)
    expect(Math.abs((bevel?.from.y ?? 0) - (bevel?.to.y ?? 0))).toBeCloseTo(1, 9)
    // Frustum instead of cylinder: π/3·h·(r² + r·q + q²).
    const less = Math.PI * 64 - (Math.PI / 3) * (64 + 8 * 7 + 49)
    expect(volume(part) - volume(bevelled)).toBeCloseTo(less, 6)
    const again = bevelThread(note).run(bevelled)
    expect(again.ok ? '' : again.problem.code).toBe('thread.open')
  })

  test('what has none is told', () => {
    const part = shaft()
    const on = faceAt(part, 10, 8)
    const refused = (note: ThreadNote) => {
      const found = undercutStep(part, note)
      return found.ok ? found.value.kind : found.problem.code
    }
    expect(refused(thread(on, 'G 1/4 A'))).toBe('thread.undercut')
    expect(refused(thread(on, 'M64x6'))).toBe('groove')
    expect(refused(thread(faceAt(part, 35, 15)))).toBe('thread.shoulder')
    expect(refused(thread(on, 'screw'))).toBe('thread.form')
  })
})

describe('centre holes', () => {
  const centre = (more: object = {}) =>
    addStep({
      ...{ kind: 'centre', body: BODY, end: 'left', type: 'B', pilot: '2.5', remains: 'stays' },
      ...more,
    } as never)
  const frustum = (h: number, a: number, b: number): number =>
    (Math.PI / 3) * h * (a * a + a * b + b * b)

  test.each(['A', 'B'] as const)('type %s takes just its cones, pilot and tip away', (type) => {
    const part = shaft()
    const hole = centreHole(2.5)
    if (!hole) throw new Error('there is 2.5')
    const [d, c, g] = [hole.pilot / 2, hole.cone / 2, hole.guard / 2]
    const cone = frustum((c - d) * Math.sqrt(3), c, d)
    const guard = type === 'B' ? frustum((g - c) / Math.sqrt(3), g, c) : 0
    const pilot = Math.PI * d * d * hole.pilotDepth + ((Math.PI / 3) * d ** 3) / Math.sqrt(3)
    const cut = must(part, centre({ type }))
    expect(volume(part) - volume(cut)).toBeCloseTo(cone + guard + pilot, 6)
    const right = must(part, centre({ type, end: 'right' }))
    expect(volume(right)).toBeCloseTo(volume(cut), 6)
    expect(callsOf(evaluate(cut)).map((x) => x.words)).toEqual([
      `ISO 6411 - ${type} 2.5/${type === 'B' ? 8 : 5.3}`,
    ])
  })

  test('type R touches a 60° cone half way between its pilot and its greatest diameter', () => {
    for (const end of ['left', 'right']) {
      const cut = must(shaft(), centre({ type: 'R', end }))
      expect(failed(cut)).toEqual([])
      const arc = edges(cut).find(({ piece }) => piece.kind === 'arc')?.piece
      if (arc?.kind !== 'arc') throw new Error('there is an arc')
      const radius = Math.hypot(arc.from.x - arc.centre.x, arc.from.y - arc.centre.y)
      expect(radius).toBeCloseTo(7.15, 9)
      expect([arc.from.y, arc.to.y].sort((a, b) => a - b)).toEqual([1.25, 2.65])
      // Where the radius to it stands at 60° to the axis, the surface stands at 30°.
      expect(arc.centre.y - radius * Math.cos(Math.PI / 6)).toBeCloseTo((1.25 + 2.65) / 2, 9)
    }
  })

  test('one that must not stay is told and not cut', () => {
    const part = must(shaft(), centre({ remains: 'goes' }))
    expect(volume(part)).toBe(volume(shaft()))
    expect(callsOf(evaluate(part))[0]?.words).toBe('ISO 6411 - B 2.5/8, must not stay')
  })

  test('what does not fit is told with a mend, and the file keeps the step', () => {
    expect(failed(must(shaft(), centre({ pilot: '10' })))).toEqual(['centre.wide'])
    expect(failed(must(shaft(), centre({ body: 'none' })))).toEqual(['step.body'])
    const part = must(shaft(), centre())
    const again = readPart(JSON.parse(JSON.stringify(toDocument(part))))
    expect(again.ok && again.value.route).toEqual(part.route)
    expect(stepRules({ kind: 'centre' }).name).toBe('centre hole')
  })
})

describe('edges', () => {
  test.each([
    ['-0.3', -0.3, 0],
    ['+0,1', 0, 0.1],
    ['±0.05', -0.05, 0.05],
    ['+/-0.05', -0.05, 0.05],
    ['-0.1 -0.5', -0.5, -0.1],
    ['+0.3 -0.1', -0.1, 0.3],
    ['−0.3', -0.3, 0],
  ])('%s', (written, least, greatest) => {
    expect(readEdge(written)).toEqual({ ok: true, value: { least, greatest } })
  })

  test.each(['', '0.3', 'sharp', '-0', '-20', '±0.1 -0.2', '-0.3 -0.3'])('“%s” is none', (text) => {
    expect(readEdge(text).ok).toBe(false)
  })

  test('of one edge, and of all others; each side is offered what it has', () => {
    const part = shaft()
    const outer = offeredNote(part, 'edge', BODY, cornerAt(part, 20, 15))
    expect(outer).toMatchObject({ outside: '-0.3', inside: '' })
    const inner = offeredNote(part, 'edge', BODY, cornerAt(part, 20, 8))
    expect(inner).toMatchObject({ outside: '', inside: '+0.3' })
    const all = offeredNote(part, 'edge', '', '')
    const noted = must(part, addNote(outer), addNote(inner), addNote(all))
    expect(said(noted)).toEqual(['−0.3', '+0.3', '−0.3 outside, +0.3 inside'])
    const where = noteStates(evaluate(noted)).map((s) => noteWhere(s, noted))
    expect(where).toEqual(['edge ⌀30 at 20', 'inside edge ⌀16 at 20', 'all other edges'])
    expect(said(must(noted, addNote(outer))).at(-1)).toBe('−0.3: note.twice')
    expect(one(part, { ...outer, outside: ' ' })).toBe('…: edge.empty')
    expect(one(part, { ...outer, outside: 'sharp' })).toBe('sharp: edge.state')
    expect(one(part, { ...outer, on: 'gone' })).toBe('−0.3: note.gone')
    // A face is no edge, and a general note has no place.
    expect(one(part, { ...outer, on: faceAt(part, 10, 8) })).toBe('−0.3: note.gone')
    const feet = noteStates(evaluate(noted)).map((s) => s.foot)
    expect(feet[0]?.at).toMatchObject({ x: 20, y: 15 })
    expect(feet[0]?.out.x).toBeCloseTo(-Math.SQRT1_2, 9)
    expect(feet[2]).toBeUndefined()
  })
})

describe('knurls, colours and what more is said of surfaces and frames', () => {
  test('a knurl stands on a land that is wide enough', () => {
    const part = shaft()
    const on = faceAt(part, 35, 15)
    const offered = offeredNote(part, 'knurl', BODY, on)
    expect(offered).toMatchObject({ form: 'RGE', pitch: '0.8' })
    const noted = must(part, addNote(offered))
    expect(said(noted)).toEqual(['ISO 13444 - RGE 0.8'])
    expect(one(noted, offered)).toBe('ISO 13444 - RGE 0.8: note.twice')
    expect(one(part, { ...offered, on: faceAt(part, 20, 11.5) })).toMatch(/knurl.land$/)
  })

  test('a colour is of one face', () => {
    const part = shaft()
    const offered = offeredNote(part, 'colour', BODY, faceAt(part, 35, 15))
    const noted = must(part, addNote(offered))
    expect(said(noted)).toEqual(['matt #2f6f8f'])
    const again = readPart(JSON.parse(JSON.stringify(toDocument(noted))))
    expect(again.ok && notesOf(again.value)).toEqual(notesOf(noted))
    const [note] = notesOf(noted)
    const wrong = { ...toDocument(noted), notes: [{ ...note, colour: 'blue' }] }
    expect(readPart(JSON.parse(JSON.stringify(wrong))).ok).toBe(false)
  })

  test('words as flags are counted in their order', () => {
    const part = shaft()
    const words = (said: string, flag: boolean): NewNote =>
      ({ kind: 'text', body: BODY, on: faceAt(part, 35, 15), words: said, flag }) as NewNote
    const noted = must(
      part,
      addNote(words('free of burrs', true)),
      addNote(words('marked here', false)),
      addNote(words('stamped', true)),
    )
    expect(said(noted)).toEqual(['1: free of burrs', 'marked here', '2: stamped'])
  })

  test('what is left on a surface, and how it is made', () => {
    const part = shaft()
    const offered = offeredNote(part, 'surface', BODY, faceAt(part, 35, 15))
    expect(one(part, { ...offered, process: 'ground', allowance: '0.2' })).toBe(
      'Ra 0.8, ground, 0.2 left on',
    )
    expect(one(part, { ...offered, allowance: '-1' })).toMatch(/surface.allowance$/)
    expect(one(part, { ...offered, allowance: '0.2', removal: 'forbidden' })).toMatch(
      /surface.forbidden$/,
    )
    expect(one(part, { ...offered, parameter: 'Rt', value: '6.3' })).toBe('Rt 6.3')
  })

  test('a profile of all other faces, and projected zones', () => {
    const bare = shaft()
    const part = must(bare, addNote(offeredNote(bare, 'datum', BODY, faceAt(bare, 10, 8))))
    const all = offeredNote(part, 'frame', '', '')
    const noted = must(part, addNote(all))
    expect(said(noted).at(-1)).toBe('profile of a surface | 0.2 | A')
    expect(one(noted, { ...all, body: '' })).toMatch(/note.twice$/)
    expect(one(part, { ...all, body: '', characteristic: 'circularRunOut' })).toMatch(
      /frame.general$/,
    )
    const own = { body: BODY, on: faceAt(bare, 35, 15) }
    const position = { ...all, ...own, characteristic: 'position', zone: '0.1' }
    const projected = { ...position, material: 'P', projected: '10' }
    expect(one(part, projected)).toBe('position | 0.1 P 10 | A')
    expect(one(part, { ...projected, projected: '' })).toMatch(/frame.projected$/)
    expect(one(part, { ...projected, characteristic: 'circularRunOut' })).toMatch(
      /frame.noProjection$/,
    )
  })

  test('a plate stays where it was put, and files of before are read', () => {
    const part = shaft()
    const noted = must(part, addNote(offeredNote(part, 'surface', BODY, faceAt(part, 35, 15))))
    const [note] = notesOf(noted)
    if (!note) throw new Error('it is there')
    const moved = must(noted, changeNote({ ...note, label: { x: 4, y: 12 } }))
    const again = readPart(JSON.parse(JSON.stringify(toDocument(moved))))
    expect(again.ok && notesOf(again.value)[0]?.label).toEqual({ x: 4, y: 12 })
    const { allowance: _, process: __, ...old } = note as { allowance: string; process: string }
    const before = { ...toDocument(noted), version: 14, notes: [old] }
    const read = readPart(JSON.parse(JSON.stringify(before)))
    expect(read.ok && notesOf(read.value)).toEqual(notesOf(noted))
  })
})
