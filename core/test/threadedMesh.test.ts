import { describe, expect, test } from 'vitest'
import { addRevolve, addStep, drawChain } from '@lathica/core/edit'
import { addNote, bevelThread, cutUndercut, threadCuts } from '@lathica/core/notes'
import { createPart, type Part, type ThreadNote } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { edgeKey, edgesOf } from '@lathica/core/section'
import { latheMesh, threadedMesh } from '@lathica/core/mesh'
import { meshedBodies, threadsToCut } from '@lathica/core/formats'
import { readThread } from '@lathica/core/standards'
import { must } from './support/parts'
import { openSides, volumeWithin } from './support/tight'

const SKETCH = 'sketch2'
const at = (x: number, y: number, more: object = {}) => ({ at: { x, y }, ...more })

/** A pin of a diameter and length with a collar of ⌀60 behind it. */
function pin(diameter: number, length: number): Part {
  return must(
    createPart({ name: 'Clamp screw' }),
    drawChain(
      SKETCH,
      [
        at(0, 0, { on: ['axis'] }),
        ...[at(0, diameter / 2), at(length, diameter / 2), at(length, 30), at(length + 10, 30)],
        at(length + 10, 0, { on: ['axis'] }),
      ],
      [['radial'], ['axial'], ['radial'], ['axial'], ['radial']],
    ),
    addRevolve(SKETCH),
  )
}
const landOn = (part: Part, radius: number): string => {
  const [body] = evaluate(part).bodies
  const found =
    body &&
    edgesOf(body.section).find(
      ({ piece: { from, to } }) =>
        Math.abs(from.y - radius) < 1e-6 && Math.abs(to.y - radius) < 1e-6,
    )
  return found ? edgeKey(found.name) : ''
}
const noteFor = (part: Part, callout: string, radius: number, length = ''): ThreadNote => ({
  ...{ kind: 'thread', id: 'n', body: 'body1', on: landOn(part, radius), callout, from: 'left' },
  length,
})

const CASES = [
  ['M16x1.5-6g', 16, 30],
  ['M16x1.5-6g LH', 16, 30],
  ['M24-6g', 24, 40],
  ['1/2-13 UNC-2A', 12.7, 25],
  ['G 1/2 A', 20.955, 25],
  ['Tr 24x5', 24, 50],
  ['Tr 40x14(P7)', 40, 70],
] as const

describe('threads in triangles', () => {
  test.each(CASES)(
    '%s is closed, and as much is missing as its profile says',
    (callout, d, length) => {
      const bare = pin(d, length)
      const part = must(bare, addNote(noteFor(bare, callout, d / 2)))
      const state = evaluate(part)
      const [cut] = threadCuts(state)
      const section = state.bodies[0]?.section
      const read = readThread(callout)
      if (!cut || !section || !read.ok) throw new Error('it is a thread')
      const mesh = threadedMesh(section, 0.01, [cut])
      expect(openSides(mesh)).toBe(0)
      // A cross-section has the same area everywhere: π · mean of r² over one pitch.
      const { major, root, crest, flank, pitch } = cut
      const many = 20_000
      const radius = (u: number): number =>
        major - Math.min(major - root, Math.max(0, (Math.abs(u) * pitch - crest) / flank))
      const squares = Array.from({ length: many }, (_, i) => radius((i + 0.5) / many - 0.5) ** 2)
      const area = Math.PI * (major ** 2 - squares.reduce((a, b) => a + b, 0) / many)
      // The last pitch before the shoulder fades: between nothing and all of it is missing there.
      const [most, least] = [area * length, area * (length - pitch)]
      const plain = volumeWithin(latheMesh(section, 0.002))
      const missing = plain - volumeWithin(mesh)
      expect(missing).toBeGreaterThan(0.95 * least)
      expect(missing).toBeLessThan(1.05 * most)
    },
  )

  test('the root and the crest lie where the standard has them, on one helix', () => {
    const bare = pin(16, 30)
    const part = must(bare, addNote(noteFor(bare, 'M16x1.5-6g', 8)))
    const state = evaluate(part)
    const [cut] = threadCuts(state)
    const section = state.bodies[0]?.section
    if (!cut || !section) throw new Error('it is a thread')
    const { positions } = threadedMesh(section, 0.01, [cut])
    let [low, high] = [Infinity, 0]
    for (let i = 0; i < positions.length; i += 3) {
      const [x = 0, y = 0, z = 0] = positions.subarray(i, i + 3)
      const r = Math.hypot(x, y)
      if (z < 2 || z > 26 || r < 5) continue
      low = Math.min(low, r)
      high = Math.max(high, r)
      // A quarter of a turn on, the same is a quarter of the lead further along.
      const turns = z / 1.5 - Math.atan2(y, x) / (2 * Math.PI)
      const off = Math.abs(turns - Math.round(turns)) * 1.5
      const wanted =
        8 - Math.min(8 - cut.root, Math.max(0, (off - 1.5 / 16) / Math.tan(Math.PI / 6)))
      expect(Math.abs(r - wanted)).toBeLessThan(1e-4)
    }
    // The root of M16 × 1.5 is ⌀14.160.
    expect(2 * low).toBeCloseTo(14.16, 3)
    expect(high).toBeCloseTo(8, 4)
  })

  test('bevel, undercut and inside threads are cut too, and stay closed', () => {
    const bare = pin(16, 30)
    const note = noteFor(bare, 'M16x1.5-6g', 8)
    const finished = must(bare, cutUndercut(note), bevelThread(note), addNote(note))
    const [body] = meshedBodies(evaluate(finished), 0.02, undefined, true)
    expect(body && openSides(body.mesh)).toBe(0)
    const [plain] = meshedBodies(evaluate(finished), 0.02)
    expect(body && plain && volumeWithin(body.mesh) < volumeWithin(plain.mesh)).toBe(true)

    const bore = {
      kind: 'bore',
      body: 'body1',
      end: 'right',
      upTo: '',
      tip: 'cone',
      tipAngle: '118',
    }
    const drilled = must(
      pin(40, 30),
      addStep({
        ...bore,
        ...{ sinkDiameter: '', sinkAngle: '90', parts: [{ diameter: '14.5', depth: '25' }] },
      } as never),
    )
    const inside = must(
      drilled,
      addNote({ ...noteFor(drilled, 'M16x1.5-6H', 7.25, '18'), from: 'right' }),
    )
    const [threaded] = meshedBodies(evaluate(inside), 0.02, undefined, true)
    const [smooth] = meshedBodies(evaluate(inside), 0.02)
    if (!threaded || !smooth) throw new Error('both are there')
    expect(openSides(threaded.mesh)).toBe(0)
    const ring = Math.PI * (8 ** 2 - 7.25 ** 2) * 18
    const missing = volumeWithin(smooth.mesh) - volumeWithin(threaded.mesh)
    expect(missing / ring).toBeGreaterThan(0.3)
    expect(missing / ring).toBeLessThan(0.6)
  })

  test('those on what is no full turn are counted apart', () => {
    const bare = pin(16, 30)
    const noted = must(bare, addNote(noteFor(bare, 'M16', 8)))
    expect(threadsToCut(evaluate(noted))).toEqual({ cut: 1, plain: 0 })
    const flat = { kind: 'flats', body: 'body1', count: '2', measure: 'across', size: '50' }
    const milled = must(
      noted,
      addStep({ ...flat, end: 'right', distance: '0', length: '5', phase: '' } as never),
    )
    expect(threadsToCut(evaluate(milled))).toEqual({ cut: 0, plain: 1 })
    expect(threadsToCut(evaluate(bare))).toEqual({ cut: 0, plain: 0 })
  })

  test('a part without threads is as it was', () => {
    const state = evaluate(pin(16, 30))
    expect(meshedBodies(state, 0.02, undefined, true)).toEqual(meshedBodies(state, 0.02))
  })
})
