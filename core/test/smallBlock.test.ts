import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { buildSystem, initialUnknowns, writeCoordinates } from '../src/solver/system'
import { analyseSystem, blocksOf } from '../src/solver/analysis'
import { prepareBlock } from '../src/solver/leastChange'
import { createSmallSolver } from '../src/solver/smallBlock'
import { createRandom } from '../src'
import { slantedSketch } from './support/chains'

const lines = fc.array(
  fc.record({
    length: fc.double({ min: 3, max: 60, noNaN: true }),
    angle: fc.double({ min: -1.2, max: 1.2, noNaN: true }).filter((a) => Math.abs(a) > 0.1),
  }),
  { minLength: 1, maxLength: 6 },
)

describe('small blocks', () => {
  it('come to where the damped method brings them', () => {
    fc.assert(
      fc.property(lines, fc.integer({ min: 1, max: 9999 }), (chain, seed) => {
        const { sketch, values } = slantedSketch(chain, 0.5, createRandom(seed))
        const system = buildSystem(sketch, values)
        const { independent } = analyseSystem(system)
        const blocks = blocksOf(system, independent)
        const solved = [createSmallSolver, undefined].map((small) => {
          const unknowns = initialUnknowns(system)
          const coordinates = new Float64Array(system.start.length)
          writeCoordinates(system, unknowns, coordinates)
          const solveSmall = small?.(system, coordinates)
          const ok = blocks.every((block) => {
            const equations = block.equations.flatMap((e) => independent[e] ?? [])
            return solveSmall
              ? solveSmall(equations, block.unknowns, unknowns)
              : prepareBlock(system, equations, block.unknowns, coordinates).solve(unknowns)
          })
          return { ok, unknowns }
        })
        const [newton, damped] = solved
        if (!newton || !damped) throw new Error('both were run')
        expect([newton.ok, damped.ok]).toEqual([true, true])
        newton.unknowns.forEach((u, i) => expect(u).toBeCloseTo(damped.unknowns[i] ?? 0, 7))
      }),
      { numRuns: 60 },
    )
  })

  it('give up on what cannot hold, and leave the unknowns as they were', () => {
    const { sketch, values } = slantedSketch([{ length: 10, angle: 0.5 }])
    const system = buildSystem(sketch, values)
    const unknowns = initialUnknowns(system)
    const coordinates = new Float64Array(system.start.length)
    writeCoordinates(system, unknowns, coordinates)
    const impossible = {
      owner: 'x',
      coordinates: Int32Array.of(2, 3),
      valued: true,
      evaluate: (at: Float64Array, gradient: Float64Array) => {
        const x = at[2] ?? 0
        gradient[0] = 2 * x
        gradient[1] = 0
        return x * x + 1
      },
    }
    const before = [...unknowns]
    const solveSmall = createSmallSolver(system, coordinates)
    expect(solveSmall([impossible], [0], unknowns)).toBe(false)
    expect([...unknowns]).toEqual(before)
  })
})
