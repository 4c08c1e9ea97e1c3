import { describe, expect, test } from 'vitest'
import {
  METRIC,
  dependenceOf,
  evaluate,
  stepMarks,
  type HolesStep,
  threadArc,
  threadsOf,
  type Part,
  type Step,
  type StepState,
  type ThreadCircle,
} from '../src'
import { demoPart } from './support/demo'

const numbers = (part: Part, ids: readonly string[]): number[] =>
  ids.map((id) => part.route.find((s) => s.id === id)?.number ?? 0)

describe('what stands on what in a route', () => {
  const housing = demoPart('bearing-housing')
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
    const part = demoPart(name)
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
    const part = demoPart('spindle')
    const state = evaluate(part).steps[2]
    const marks = state ? stepMarks(state, METRIC) : []
    // A fillet stands in the corner: its marks look out of the material.
    expect(marks.map((m) => m.out.y > 0)).toEqual([true, true])
  })

  test('are none for what a profile draws', () => {
    expect(wordsOf('spindle', 10)).toEqual([])
  })
})

/** A demo part's step of a kind, changed, as it stands when the route has run. */
function stateOf(
  name: string,
  kind: Step['kind'],
  change: Record<string, unknown> = {},
): { readonly state: StepState; readonly part: Part } {
  const part = demoPart(name)
  const step = part.route.findLast((s) => s.kind === kind)
  const route = part.route.map((s) => (s === step ? ({ ...s, ...change } as Step) : s))
  const state = evaluate({ ...part, route }).steps.find((s) => s.stepId === step?.id)
  if (state?.status !== 'done') throw new Error(`no such step: ${state?.problem?.message ?? kind}`)
  return { state, part }
}
const sizesOf = (...of: Parameters<typeof stateOf>): readonly string[] =>
  stepMarks(stateOf(...of).state, METRIC).map((m) => m.words)

describe('sizes of what is no full turn', () => {
  test('of holes are number and diameter or thread, depth, head and pitch circle', () => {
    const circle = 'on a circle of ⌀74'
    const end = { way: 'end', on: '' } as const
    const part = demoPart('end-bearing-housing')
    const first = part.route.find((s) => s.kind === 'holes' && s.way === end.way)
    if (first?.kind !== 'holes') throw new Error('it has a circle of holes')
    const at = (change: Partial<HolesStep>): readonly string[] => {
      const route = part.route.map((s) => (s === first ? { ...first, ...change } : s))
      const state = evaluate({ ...part, route }).steps.find((s) => s.stepId === first.id)
      return state ? stepMarks(state, METRIC).map((m) => m.words) : []
    }
    expect(at({})).toEqual(['6 × ⌀6.6', 'counterbore ⌀11 × 6.4', circle])
    expect(at({ thread: 'M8', head: 'none' })).toEqual(['6 × M8', circle])
    expect(at({ head: 'countersink', headAngle: '90 deg' })[1]).toBe('countersink ⌀11 × 90°')
    expect(at({ head: 'spotface', headDepth: '1' })[1]).toBe('spot face ⌀11')
    expect(at({ reach: 'depth', depth: '8', tip: 'flat', count: '1', skip: [] })[0]).toBe(
      '⌀6.6, 8 deep',
    )
    expect(sizesOf('end-bearing-housing', 'holes')).toEqual(['2 × ⌀4, 8 deep'])
  })

  test('of flats, slots, bars and extrusions tell what was typed', () => {
    expect(sizesOf('winding-spindle', 'flats')[0]).toMatch(/^2 flats, [\d.]+ across$/)
    expect(
      sizesOf('winding-spindle', 'flats', { count: '1', measure: 'depth', size: '1' })[0],
    ).toBe('1 flat, 1 deep')
    expect(sizesOf('winding-spindle', 'slot')[0]).toMatch(/^(keyway|seat) /)
    expect(sizesOf('winding-wheel', 'slot')).toEqual(['12 × slot 4 × 9'])
    expect(sizesOf('sampling-can', 'sweep')).toEqual(['rod ⌀4'])
    expect(sizesOf('sampling-can', 'sweep', { form: 'bar', height: '3' })).toEqual(['bar 4 × 3'])
    expect(sizesOf('guide-segment', 'revolve')).toContain('turned by 120°')
    expect(sizesOf('guide-segment', 'extrude', { side: 'both', length: '9', back: '4' })).toEqual([
      '13 thick',
    ])
    expect(sizesOf('guide-segment', 'extrude', { side: 'symmetric', length: '9' })).toEqual([
      '9 thick',
    ])
  })

  test('stand where the feature is, turned into the half-section on the board', () => {
    const { state } = stateOf('setting-knob', 'holes', { start: '90' })
    const [mark] = stepMarks(state, METRIC)
    // A cross hole at a quarter turn: straight out along the part's y.
    expect(mark?.inSpace?.x).toBeCloseTo(0, 9)
    expect(mark?.inSpace?.y).toBeGreaterThan(1)
    expect(mark?.at.y).toBeCloseTo(mark?.inSpace?.y ?? 0, 9)
    expect(mark?.at.x).toBe(mark?.inSpace?.z)
  })
})

describe('threads', () => {
  const circles = (thread: string): readonly ThreadCircle[] =>
    stateOf('setting-knob', 'holes', { thread }).state.threads

  test('have the nominal diameter that their name tells', () => {
    const nominal = (thread: string): number | undefined => {
      const [circle] = circles(thread)
      return circle && 2 * circle.radius
    }
    expect(nominal('M5')).toBe(5)
    expect(nominal(' m 8 × 1')).toBe(8)
    expect(nominal('M2,5')).toBe(2.5)
    expect(nominal('Tr 16 × 4')).toBe(16)
    expect(nominal('G 1/4')).toBeUndefined()
    expect(nominal('')).toBeUndefined()
  })

  test('of less than their hole are noted', () => {
    expect(stateOf('setting-knob', 'holes', { thread: 'M4' }).state.notes).toEqual([
      'Holes of ⌀4.2 mm leave nothing to cut M4 into.',
    ])
    expect(stateOf('setting-knob', 'holes').state.notes).toEqual([])
  })

  test('stand at the mouth, or at the seat of a head, as three quarters of a circle', () => {
    const [circle] = circles('M5')
    if (!circle) throw new Error('it has a thread')
    const arc = threadArc(circle)
    const { at } = circle.frame
    for (const p of arc) {
      const off = Math.hypot(p.x - at.x, p.y - at.y, p.z - at.z)
      expect(off).toBeCloseTo(Math.hypot(2.5, 0.025), 9)
    }
    const [from, to] = [arc[0], arc.at(-1)]
    if (!from || !to) throw new Error('it has ends')
    const chord = Math.hypot(to.x - from.x, to.y - from.y, to.z - from.z)
    expect(chord).toBeCloseTo(2.5 * Math.SQRT2, 9)
    const head = { head: 'counterbore', headDiameter: '8', headDepth: '1.5' }
    const [sunk] = stateOf('setting-knob', 'holes', head).state.threads
    expect((sunk?.frame.at.x ?? 0) - at.x).toBeCloseTo(-1.5, 9)
  })

  test('are told up to the step that is looked at, and repeated with their holes', () => {
    const { part } = stateOf('setting-knob', 'holes')
    const hole = part.route.findLast((s) => s.kind === 'holes')
    const again: Step = {
      kind: 'around',
      ...{ id: 'again', number: 60, aside: false },
      ...{ steps: [hole?.id ?? ''], count: '3', range: '' },
    }
    const state = evaluate({ ...part, route: [...part.route, again] })
    const turns = threadsOf(state).map(({ frame }) => Math.atan2(frame.at.y, frame.at.x))
    expect(turns.map((t) => Math.round((t * 180) / Math.PI))).toEqual([0, 120, -120])
    expect(threadsOf(state, part.route.length)).toHaveLength(1)
    expect(threadsOf(state, 1)).toHaveLength(0)
    const round = state.steps.at(-1)
    expect(round && stepMarks(round, METRIC).map((m) => m.words)).toEqual(['3 round, 120° apart'])
  })
})
