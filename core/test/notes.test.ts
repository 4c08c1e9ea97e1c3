import { describe, expect, test } from 'vitest'
import {
  addRevolve,
  addSize,
  changeSize,
  drawChain,
  fittingSizes,
  removeStep,
} from '@lathica/core/edit'
import { edgeKey, edgesOf } from '@lathica/core/section'
import { createPart, type FrameNote, type NewNote, type Part } from '@lathica/core/part'
import {
  addNote,
  changeNote,
  fitLand,
  noteStates,
  notesOf,
  offeredNote,
  removeNote,
} from '@lathica/core/notes'
import { evaluate } from '@lathica/core/route'
import { readPart, toDocument } from '@lathica/core/formats'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const at = (x: number, y: number, more: object = {}) => ({ at: { x, y }, ...more })
const never = (): never => {
  throw new Error('there is nothing')
}

/** Lands of ⌀16 from 0 to 20 and ⌀30 from 20 to 50, and a cone from there to 60. */
function stub(): Part {
  const drawn = must(
    createPart({ name: 'Stub' }),
    drawChain(
      SKETCH,
      [
        at(0, 0, { on: ['axis'] }),
        ...[at(0, 8), at(20, 8), at(20, 15), at(50, 15), at(60, 10)],
        at(60, 0, { on: ['axis'] }),
      ],
      [['radial'], ['axial'], ['radial'], ['axial'], [], ['radial']],
    ),
    addRevolve(SKETCH),
  )
  const land = sketchOf(drawn).entities[1]?.id ?? ''
  const offer = fittingSizes(sketchOf(drawn), [land]).find((o) => o.kind === 'diameter') ?? never()
  return must(drawn, addSize(SKETCH, offer, '16'))
}

/** The key of the face whose middle lies at a place. */
function faceAt(part: Part, x: number, y: number): string {
  const [body] = evaluate(part).bodies
  const found =
    body &&
    edgesOf(body.section).find(
      ({ piece: { from, to } }) =>
        Math.hypot((from.x + to.x) / 2 - x, (from.y + to.y) / 2 - y) < 0.01,
    )
  return found ? edgeKey(found.name) : never()
}
const BODY = 'body1'
const THREADED = (part: Part): string => faceAt(part, 10, 8)
const told = (part: Part): readonly string[] =>
  noteStates(evaluate(part)).map((s) => (s.problem ? `${s.words}: ${s.problem.code}` : s.words))
const one = (part: Part, note: Omit<NewNote, 'body'> & object): string =>
  told(must(part, addNote({ body: BODY, ...note } as NewNote))).at(-1) ?? ''

describe('a thread on a land', () => {
  const part = stub()
  const thread = (callout: string, more: object = {}) =>
    ({ kind: 'thread', on: THREADED(part), callout, from: 'left', length: '', ...more }) as const

  test('is offered as what fits, kept in the file, and stays with its face', () => {
    const offered = offeredNote(part, 'thread', BODY, THREADED(part))
    expect(offered).toMatchObject({ callout: 'M16', from: 'left', length: '' })
    const noted = must(part, addNote(offered))
    expect(told(noted)).toEqual(['M16'])
    const again = readPart(JSON.parse(JSON.stringify(toDocument(noted))))
    expect(again.ok && notesOf(again.value)).toEqual(notesOf(noted))
    const [note] = notesOf(noted)
    const [size] = sketchOf(noted).sizes
    // Its land grows: the thread says what it wants, and one command makes it so again.
    const grown = must(noted, changeSize(SKETCH, size?.id ?? '', '17'))
    expect(told(grown)).toEqual(['M16: thread.diameter'])
    const [state] = noteStates(evaluate(grown))
    expect(state?.problem?.mend).toBe('Make the land ⌀16, or take another thread.')
    if (note?.kind !== 'thread') throw new Error('it is a thread')
    expect(told(must(grown, fitLand(note)))).toEqual(['M16'])
    // Without what made its face it says so, and nothing of it is lost.
    const bare = must(noted, removeStep(noted.route[0]?.id ?? ''))
    expect(told(bare)).toEqual(['M16: note.gone'])
    expect(told(must(noted, removeNote(note.id)))).toEqual([])
    expect('notes' in must(noted, removeNote(note.id))).toBe(false)
  })

  test('is judged: what cannot be read, the wrong side, a cone, a length that is too long', () => {
    expect(one(part, thread('M16x1.5-6g LH'))).toBe('M16×1.5-6g LH')
    expect(one(part, thread('M1000'))).toBe('M1000: thread.size')
    expect(one(part, thread('M16-6H'))).toBe('M16-6H: thread.side')
    expect(one(part, thread('M20'))).toBe('M20: thread.diameter')
    expect(one(part, thread('M16', { on: faceAt(part, 55, 12.5) }))).toBe('M16: note.cylinder')
    expect(one(part, thread('M16', { length: '12' }))).toBe('M16')
    expect(one(part, thread('M16', { length: '21' }))).toBe('M16: thread.long')
    expect(one(part, thread('M16', { length: 'x' }))).toBe('M16: thread.long')
  })

  test('a land that no size gives is told', () => {
    const noted = must(
      part,
      addNote(thread('M20', { on: faceAt(part, 35, 15) }) as unknown as NewNote),
    )
    const note = { ...thread('M20', { on: faceAt(part, 35, 15) }), id: 'x', body: BODY } as never
    const result = fitLand(note).run(noted)
    expect(result.ok || result.problem.code).toBe('thread.unsized')
  })
})

describe('datums and geometric tolerances', () => {
  const bare = stub()
  const lettered = must(
    bare,
    addNote(offeredNote(bare, 'datum', BODY, THREADED(bare))),
    addNote({ kind: 'datum', body: BODY, on: faceAt(bare, 35, 15), letter: 'B' }),
  )
  const frame = (over: Partial<FrameNote>) => ({
    ...{
      kind: 'frame',
      on: faceAt(bare, 20, 11.5),
      characteristic: 'circularRunOut',
      round: false,
    },
    ...{ zone: '0.02', material: '', projected: '', datums: 'A-B', ...over },
  })

  test('letters are offered in order, and told where they are missing or double', () => {
    expect(told(lettered)).toEqual(['A', 'B'])
    expect(offeredNote(lettered, 'datum', BODY, '')).toMatchObject({ letter: 'C' })
    const datum = (letter: string) => ({ kind: 'datum', on: THREADED(bare), letter }) as const
    expect(one(lettered, datum(''))).toBe('?: datum.letter')
    expect(one(lettered, datum('Q'))).toBe('Q: datum.letter')
    expect(one(lettered, datum('B'))).toBe('B: datum.twice')
  })

  test.each([
    ['run-out to a common axis', {}, 'circular run-out | 0.02 | A-B'],
    [
      'position of a round zone',
      { characteristic: 'position', round: true, datums: 'A B' },
      'position | ⌀0.02 | A | B',
    ],
    [
      'greatest material',
      { characteristic: 'position', material: 'M', datums: 'A' },
      'position | 0.02 M | A',
    ],
    ['no datum', { datums: '' }, 'frame.datum'],
    ['a datum of a form', { characteristic: 'flatness', datums: 'A' }, 'frame.free'],
    ['a datum that is not there', { datums: 'A-C' }, 'frame.missing'],
    ['a datum twice', { datums: 'A A' }, 'frame.twice'],
    ['four datums', { datums: 'A B C D' }, 'frame.three'],
    ['its own datum', { on: 'A', datums: 'A' }, 'frame.own'],
    ['a round run-out', { round: true }, 'frame.round'],
    ['no width', { zone: '0' }, 'frame.zone'],
    ['no number', { zone: 'wide' }, 'formula.name'],
    ['circularity of a shoulder', { characteristic: 'circularity', datums: '' }, 'frame.flat'],
    ['coaxiality of a shoulder', { characteristic: 'coaxiality' }, 'frame.axis'],
    ['flatness of a land', { characteristic: 'flatness', datums: '', on: 'A' }, 'frame.curved'],
    [
      'cylindricity of a cone',
      { characteristic: 'cylindricity', datums: '', on: 'cone' },
      'frame.cylinder',
    ],
  ] as const)('%s', (_, over, said) => {
    const on =
      'on' in over ? (over.on === 'A' ? THREADED(bare) : faceAt(bare, 55, 12.5)) : undefined
    const note = frame({ ...(over as Partial<FrameNote>), ...(on === undefined ? {} : { on }) })
    const words = one(lettered, note as never)
    if (said.includes('.') && !said.includes('|')) expect(words).toMatch(new RegExp(`: ${said}$`))
    else expect(words).toBe(said)
  })

  test('the one offered stands', () => {
    const state = must(
      lettered,
      addNote(offeredNote(lettered, 'frame', BODY, faceAt(bare, 20, 11.5))),
    )
    expect(told(state).at(-1)).toBe('circular run-out | 0.02 | A-B')
    const first = must(bare, addNote(offeredNote(bare, 'frame', BODY, faceAt(bare, 20, 11.5))))
    expect(told(first)).toEqual(['flatness | 0.02'])
  })
})

describe('surface and words', () => {
  test('one for all, exceptions on faces, and what has no meaning is told', () => {
    const part = stub()
    const all = must(part, addNote(offeredNote(part, 'surface', '', '')))
    expect(told(all)).toEqual(['Ra 3.2'])
    const both = must(all, addNote(offeredNote(all, 'surface', BODY, THREADED(part))))
    expect(told(both)).toEqual(['Ra 3.2', 'Ra 0.8'])
    expect(
      one(both, {
        kind: 'surface',
        on: THREADED(part),
        parameter: 'Rz',
        value: '4',
        removal: 'any',
        allowance: '',
        process: '',
      } as never),
    ).toBe('Rz 4: note.twice')
    const [note] = notesOf(all)
    if (note?.kind !== 'surface') throw new Error('it is a surface')
    expect(told(must(all, changeNote({ ...note, value: 'smooth' })))).toEqual([
      'Ra smooth: surface.value',
    ])
    const treated = (words: string, depth: string): string =>
      one(part, { kind: 'treatment', on: THREADED(part), words, depth } as never)
    expect(treated('hardened 58 HRC', '0.8')).toBe('hardened 58 HRC, 0.8 deep')
    expect(treated('hardened', '')).toBe('hardened')
    expect(treated('', '')).toBe('…: treatment.empty')
    expect(treated('hardened', '0')).toBe('hardened: treatment.depth')
    expect(treated('hardened', 'deep')).toBe('hardened: formula.name')
    expect(one(part, { kind: 'text', on: THREADED(part), words: ' ', flag: false } as never)).toBe(
      '…: text.empty',
    )
    expect(
      one(part, {
        kind: 'text',
        on: THREADED(part),
        words: 'hardened 55 HRC',
        flag: false,
      } as never),
    ).toBe('hardened 55 HRC')
  })
})
