import { describe, expect, test } from 'vitest'
import {
  METRIC,
  dependenceOf,
  evaluate,
  readPartFile,
  stepMarks,
  type HolesStep,
  type Part,
  type Step,
} from '../src'
import { demoParts } from '../../scripts/demo/parts'

const demo = (name: string): Part => {
  const read = readPartFile(demoParts().get(`${name}.lathica.json`) ?? '')
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}
const numbers = (part: Part, ids: readonly string[]): number[] =>
  ids.map((id) => part.route.find((s) => s.id === id)?.number ?? 0)

describe('what stands on what in a route', () => {
  const housing = demo('bearing-housing')
  const of = (number: number) => {
    const step = housing.route.find((s) => s.number === number)
    return dependenceOf(housing, step?.id ?? '')
  }

  test('is told by the names of faces and edges in steps', () => {
    // The ring groove goes into the bore, the chamfers onto edges of outline and bore.
    expect(numbers(housing, of(30).needs)).toEqual([20])
    expect(numbers(housing, of(20).carries)).toEqual([30, 60])
    expect(numbers(housing, of(60).needs)).toEqual([10, 20])
    expect(of(20).profile).toBeUndefined()
    expect(of(10).profile).toBe(housing.sketches[0]?.id)
  })

  test('goes through edges made from others, and ends where a step is gone', () => {
    const [first] = housing.route
    const fillet = housing.route.find((s) => s.kind === 'fillet')
    const chamfer = housing.route.find((s) => s.kind === 'chamfer')
    if (!first || !fillet || chamfer?.kind !== 'chamfer') throw new Error('the housing has these')
    const key = `${fillet.id}/round(${first.id}/l1+${first.id}/l2)|${first.id}/l4`
    const onRound: Part = {
      ...housing,
      route: housing.route.map((s) =>
        s === chamfer
          ? {
              ...chamfer,
              sets: [
                { pick: { kind: 'corners', corners: [key] }, along: '1', across: '', angle: '45' },
              ],
            }
          : s,
      ),
    }
    expect(numbers(onRound, dependenceOf(onRound, chamfer.id).needs)).toEqual([10, 50])
    expect(dependenceOf(housing, 'step99')).toEqual({ profile: undefined, needs: [], carries: [] })
  })
})

describe('sizes of a step on the drawing', () => {
  const wordsOf = (name: string, number: number): string[] => {
    const part = demo(name)
    const at = part.route.findIndex((s) => s.number === number)
    const state = evaluate(part).steps[at]
    return state ? stepMarks(state, METRIC).map((m) => m.words) : []
  }

  test('are diameters and widths of what was bored or grooved', () => {
    expect(wordsOf('bearing-housing', 20)).toEqual(['⌀35 × 20', '⌀24 × 14'])
    expect(wordsOf('bearing-housing', 30)).toEqual(['⌀37 × 1.6'])
  })

  test('are radii of fillets and legs of bevels, each at its place', () => {
    expect(wordsOf('bearing-housing', 50)).toEqual(['R3'])
    expect(wordsOf('bearing-housing', 60)).toEqual(['1 × 45°', '1 × 45°', '1 × 45°', '1 × 45°'])
    const part = demo('spindle')
    const state = evaluate(part).steps[2]
    const marks = state ? stepMarks(state, METRIC) : []
    // A fillet stands in the corner: its marks look out of the material.
    expect(marks.map((m) => m.out.y > 0)).toEqual([true, true])
  })

  test('are none for what a profile draws', () => {
    expect(wordsOf('spindle', 10)).toEqual([])
  })
})

describe('marks of holes', () => {
  test('tell their number and diameter at the first of them, or their thread', () => {
    const part = demo('end-bearing')
    const at = (number: number, change: Partial<HolesStep> = {}): readonly string[] => {
      const step = part.route.find((s) => s.number === number)
      const state = evaluate(part).steps.find((s) => s.stepId === step?.id)
      if (!step || !state) throw new Error('there is no such step')
      return stepMarks(state, METRIC, { ...step, ...change } as Step).map((m) => m.words)
    }
    expect(at(50)).toEqual(['6 × ⌀6.6'])
    expect(at(60)).toEqual(['2 × ⌀4'])
    expect(at(50, { thread: 'M8' })).toEqual(['6 × M8'])
  })
})
