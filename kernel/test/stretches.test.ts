import { beforeAll, describe, expect, test } from 'vitest'
import { stretchKey, wholeKey } from '@lathica/core/names'
import type { MirrorStep, NewStep, Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { addStep, offeredStep } from '@lathica/core/edit'
import { stretchesOf, type SolidMesh } from '@lathica/core/mesh'
import type { Kernel } from '../src'
import { bodyOf, builtBy, key, run, spindle } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

/** A single flat at the thin end, turned by an angle in degrees. */
function flat(phase: string): Part {
  const part = spindle()
  const step = {
    ...{ kind: 'flats', body: 'body1', count: '1', measure: 'across', size: '18' },
    ...{ end: 'right', from: key(part, 'face at 90'), distance: '', length: '15', phase },
  }
  return run(part, addStep(step as unknown as NewStep))
}

/** The edge of a flat with the land it is on, which is in two stretches. */
function sideEdge(part: Part): string {
  const { mesh } = builtBy(kernel, part)
  const edge = new Set((mesh.rims ?? []).map((r) => wholeKey(r.key)))
  const parted = [...edge].filter((k) => stretchesOf(mesh, k).length === 2)
  expect(parted).toHaveLength(1)
  return parted[0] ?? ''
}

const rounded = (part: Part, ...edges: readonly string[]): Part =>
  run(
    part,
    addStep({
      ...{ kind: 'fillet', body: 'body1' },
      sets: [{ pick: { kind: 'solid', edges }, radius: '0.4' }],
    } as unknown as NewStep),
  )

const figuresOf = (part: Part) => {
  const { figures } = builtBy(kernel, part)
  if (!figures) throw new Error('there are no figures')
  return figures
}

/** The angles in degrees from 0 to 360 at which the faces made by a step have their middle. */
function anglesOf({ faces, indices, positions }: SolidMesh, mark: RegExp): number[] {
  return faces
    .filter((f) => mark.test(f.name))
    .map(({ start, count }) => {
      const sums = [0, 0]
      for (let i = start; i < start + count; i++) {
        const at = 3 * (indices[i] ?? 0)
        sums[0] = (sums[0] ?? 0) + (positions[at] ?? 0)
        sums[1] = (sums[1] ?? 0) + (positions[at + 1] ?? 0)
      }
      const degrees = (Math.atan2(sums[1] ?? 0, sums[0] ?? 0) * 180) / Math.PI
      return (degrees + 360) % 360
    })
    .sort((a, b) => a - b)
}

describe('an edge in two stretches', () => {
  test('is rounded whole, or one stretch of it', () => {
    const part = flat('30')
    const edge = sideEdge(part)
    const plain = figuresOf(part)
    const [one, two] = [1, 2].map((n) => figuresOf(rounded(part, stretchKey(edge, n))))
    const whole = figuresOf(rounded(part, edge))
    const lost = (made = plain): number => plain.volume - made.volume
    expect(lost(one)).toBeGreaterThan(0.02)
    expect(lost(one)).toBeCloseTo(lost(two), 8)
    expect(lost(whole)).toBeCloseTo(2 * lost(one), 8)
    const both = rounded(part, stretchKey(edge, 1), stretchKey(edge, 2))
    expect(figuresOf(both).volume).toBeCloseTo(whole.volume, 8)
  })

  test.each([['30'], ['200'], ['355']])(
    'is counted from angle nought on, turned by %s°',
    (phase) => {
      const part = flat(phase)
      const edge = sideEdge(part)
      const [first, second] = [1, 2].map((n) => {
        const made = rounded(part, stretchKey(edge, n))
        return anglesOf(builtBy(kernel, made).mesh, /\/round$/)[0] ?? NaN
      })
      expect(first).toBeLessThan(second ?? NaN)
    },
  )

  test('fails the step when it has no such stretch', () => {
    const part = flat('30')
    const made = rounded(part, stretchKey(sideEdge(part), 3))
    const { plan } = bodyOf(made)
    if (!plan) throw new Error('it is a full turn')
    expect(() => kernel.build(plan, 0.05)).toThrow(/no longer there/)
  })
})

describe('one stretch of an edge', () => {
  // From here the two sides of some copies are counted the other way about.
  const made = (n: number) => {
    const part = flat('200')
    return rounded(part, stretchKey(sideEdge(part), n))
  }
  const lastTwo = (part: Part): string[] => part.route.slice(-2).map((s) => s.id)

  test.each([[1], [2]])('is repeated round the axis with the flat: stretch %i', (n) => {
    const one = made(n)
    const around = { kind: 'around', steps: lastTwo(one), count: '4', range: '' }
    const four = run(one, addStep(around as unknown as NewStep))
    expect(evaluate(four).steps.every((s) => s.status === 'done')).toBe(true)
    const figures = figuresOf(four)
    const plain = figuresOf(spindle4())
    expect(plain.volume - figures.volume).toBeCloseTo(
      4 * (figuresOf(flat('200')).volume - figuresOf(one).volume),
      7,
    )
    const angles = anglesOf(builtBy(kernel, four).mesh, /\/round/)
    expect(angles).toHaveLength(4)
    angles.slice(1).forEach((a, i) => expect(a - (angles[i] ?? 0)).toBeCloseTo(90, 1))
  })

  /** The four flats without rounds. */
  function spindle4(): Part {
    const part = flat('200')
    const steps = part.route.slice(-1).map((s) => s.id)
    const around = { kind: 'around', steps, count: '4', range: '' }
    return run(part, addStep(around as unknown as NewStep))
  }

  test.each([[1], [2]])('is mirrored with the flat: stretch %i', (n) => {
    const one = made(n)
    const { section } = bodyOf(one)
    const offered = offeredStep('mirror', 'body1', section, undefined, one.units) as MirrorStep
    const way = { way: 'along', angle: '75', steps: lastTwo(one) } as const
    const both = run(one, addStep({ ...offered, ...way } as NewStep))
    const [a = NaN, b = NaN] = anglesOf(builtBy(kernel, both).mesh, /\/round/)
    // The image of an angle in a plane along the axis: twice the plane's own, less the angle.
    expect((a + b) % 360).toBeCloseTo(150, 1)
  })
})
