import { beforeAll, describe, expect, test } from 'vitest'
import { place, type Frame } from '@lathica/core/geometry'
import { EMPTY_SECTION } from '@lathica/core/section'
import { packText, unpackText } from '@lathica/core/solid'
import type { Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { countWords, recoverPart, recoveredWords, type RecoveredPart } from '@lathica/core/recover'
import { needsKernel, readPart, toDocument, writeStep } from '@lathica/core/formats'
import { demoPart } from '../../core/test/support/demo'
import { builtGeometry, partFromFile, settlePlans, type Kernel } from '../src'
import { bodyOf, spindle, watertight } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

function written(part: Part): string {
  const state = settlePlans(part, (plan) => kernel.weigh(plan))
  const text = needsKernel(state)
    ? builtGeometry(kernel, state, 0.05).step
    : writeStep(state, new Date('2026-11-02T10:42:00Z'))
  if (text === undefined) throw new Error('there is nothing to write')
  return text
}

const recovered = (text: string): RecoveredPart =>
  recoverPart('Came in', kernel.read(text), packText(text))

/** The volumes of the bodies of a part, in mm³, with those the kernel has to tell. */
function volumesOf(part: Part): readonly (number | undefined)[] {
  const state = settlePlans(part, (plan) => kernel.weigh(plan))
  expect(state.steps.filter((s) => s.status !== 'done')).toEqual([])
  return state.bodies.map((b) => b.solid?.volume)
}

const freedomsOf = (part: Part): number[] =>
  [...evaluate(part).sketches.values()].map((s) => s.solution.freedoms)

describe('the half-section of a turned solid is found in its exchange file', () => {
  test.each([
    'spindle',
    'line-sheave',
    'cord-drum',
    'winding-grip',
    'counterweight',
    'ink-flask',
    'float',
    'bearing-housing',
    'guide-roller',
  ])('of the %s: all of it, with a size for every freedom', (name) => {
    const part = demoPart(name)
    const wanted = evaluate(part).bodies.map((b) => b.solid?.volume ?? 0)
    const { part: found, solids } = recovered(written(part))
    expect(solids).toMatchObject(wanted.map(() => ({ isTurned: true, isKept: false })))
    const volumes = volumesOf(found)
    expect(volumes).toHaveLength(wanted.length)
    volumes.forEach((v, i) => expect((v ?? 0) / (wanted[i] ?? 1)).toBeCloseTo(1, 6))
    expect(freedomsOf(found)).toEqual(wanted.map(() => 0))
    // It begins at the datum, and every size has a plain figure.
    const { sketches } = found
    const places = sketches.flatMap((s) => s.points.map((p) => p.x))
    expect(Math.min(...places)).toBeCloseTo(0, 9)
    const formulas = sketches.flatMap((s) => s.sizes.map((size) => size.formula))
    expect(formulas.filter((f) => !/^\d+(\.\d{1,6})?$/.test(f))).toEqual([])
  })

  test.each([
    ['end-bearing-housing', '4 chamfers, 1 fillet, 6 holes, 2 holes'],
    ['winding-spindle', '2 chamfers, 1 cross hole, 1 keyway, 2 flats'],
    ['winding-wheel', '6 holes, 12 keyways'],
    ['setting-knob', '2 chamfers, 1 cross hole, 10 flats'],
  ])('of the %s with its holes, flats and slots as steps: it is rebuilt', (name, steps) => {
    const part = demoPart(name)
    const text = written(part)
    const own = volumesOf(part)
    const { part: found, solids } = partFromFile(kernel, text, 'Came in')
    expect(solids).toMatchObject([{ isTurned: true, isKept: false }])
    expect(solids[0]?.steps.map(countWords).join(', ')).toBe(steps)
    expect((volumesOf(found)[0] ?? 0) / (own[0] ?? 1)).toBeCloseTo(1, 7)
    expect(freedomsOf(found)).toEqual([0])
    // A size of a step is changed as of any.
    expect(found.route.every((s) => s.kind !== 'import')).toBe(true)
  })

  test.each(['sampling-can', 'gauge-cover'])(
    'of the %s without what no step makes; the solid itself stands for the part',
    (name) => {
      const part = demoPart(name)
      const text = written(part)
      const own = volumesOf(part)
      const { part: found, solids } = partFromFile(kernel, text, 'Came in')
      expect(solids).toMatchObject([{ isTurned: true, isKept: true }])
      const { distance, surface } = solids[0]?.comparison ?? { distance: 0, surface: 0 }
      expect(distance).toBeGreaterThan(0.1)
      expect(surface).toBeGreaterThan(0)
      expect(surface).toBeLessThan(0.5)
      const [turned, kept] = volumesOf(found)
      expect((kept ?? 0) / (own[0] ?? 1)).toBeCloseTo(1, 7)
      expect(turned).not.toBeCloseTo(own[0] ?? 0, 0)
      expect(freedomsOf(found)).toEqual([0])
      expect(found.bodies).toMatchObject([
        { visible: false, reference: true },
        { visible: true, reference: false },
      ])
      // What is handed over is the solid, once.
      const state = settlePlans(found, (plan) => kernel.weigh(plan))
      const out = kernel.read(builtGeometry(kernel, state, 0.1).step ?? '')
      expect(out.map((o) => o.volume / (own[0] ?? 1))).toEqual([expect.closeTo(1, 5)])
      // It is all in the part file.
      const again = readPart(JSON.parse(JSON.stringify(toDocument(found))))
      expect(again.ok && JSON.stringify(again.value) === JSON.stringify(found)).toBe(true)
    },
  )

  test('what is not turned stands as it came, as a valid solid', () => {
    const part = demoPart('guide-segment')
    const came = recovered(written(part))
    expect(came.solids).toMatchObject([{ isTurned: false, isKept: true }])
    expect(recoveredWords(came)).toBe('It is not turned: it stands as it came.')
    const { plan } = bodyOf(came.part)
    const built = plan && kernel.build(plan, 0.05)
    expect(built?.valid).toBe(true)
    expect(built && watertight(built.mesh)).toBe(true)
  })

  test('lies where its own axis is, however it stands in the file', () => {
    const [c, s] = [Math.cos(0.4), Math.sin(0.4)]
    const frame: Frame = { at: place(30, -12, 7), x: place(c, 0, -s), z: place(s, 0, c) }
    const part = spindle()
    const base = { base: bodyOf(part).section, ops: [] }
    const tool = { kind: 'body' as const, plan: base, frame, mark: '' }
    const plan = {
      base: EMPTY_SECTION,
      ops: [{ kind: 'combine' as const, step: 'moved', effect: 'add' as const, tools: [tool] }],
    }
    const text = kernel.writeStep(
      [{ bodyId: 'body1', name: 'moved', colour: '#888888', plan }],
      'moved',
    )
    const { part: found, solids } = recovered(text)
    expect(solids).toMatchObject([{ isTurned: true, isKept: false }])
    const diameters = found.sketches[0]?.sizes.flatMap((z) =>
      z.kind === 'diameter' ? [Number(z.formula)] : [],
    )
    expect([...(diameters ?? [])].sort((a, b) => a - b)).toEqual([20, 30, 40])
    expect(volumesOf(found)[0]).toBeCloseTo(bodyOf(part).solid?.volume ?? 0, 4)
  })

  test('in words for who brought it', () => {
    expect(recoveredWords(recovered(written(demoPart('spindle'))))).toBe(
      'Its half-section of ⌀44 × 171 is an editable profile now, with 2 chamfers and 4 fillets as steps.',
    )
    expect(recoveredWords(recovered(written(demoPart('float'))))).toContain('2 half-sections')
    expect(recoveredWords(recovered(written(demoPart('winding-wheel'))))).toContain(
      'it is handed over as it came, and what was rebuilt is a hidden reference.',
    )
  })
})

describe('files that hold no solid', () => {
  test('are refused in words', () => {
    expect(() => kernel.read('solid ascii stl')).toThrow('no exchange file of solids')
    expect(() => kernel.read('')).toThrow('no exchange file of solids')
    expect(() => kernel.read(`ISO-10303-21;${' '.repeat(21_000_000)}`)).toThrow('more than can')
    const text = written(spindle())
    expect(() => kernel.read('ISO-10303-21;\nHEADER;\nENDSEC;\nnonsense')).toThrow(
      /broken|no solid/,
    )
    const bare = text.replace(/DATA;[\s\S]*ENDSEC;\s*END-ISO/, 'DATA;\nENDSEC;\nEND-ISO')
    expect(() => kernel.read(bare)).toThrow(/broken|no solid/)
    // Cut off in the middle, it is refused or holds nothing; it never stops the kernel.
    expect(() => kernel.read(text.slice(0, text.length / 2))).toThrow(/broken|no solid/)
    expect(kernel.read(text)).toHaveLength(1)
  })

  test('a packed file comes out as it went in', () => {
    const text = `ISO-10303-21; ⌀ ${'x'.repeat(100_000)}`
    expect(unpackText(packText(text))).toBe(text)
    expect(packText(text).length).toBeLessThan(1000)
  })
})
