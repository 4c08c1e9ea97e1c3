import { createRandom, solve, startDrag } from '@lathica/core/solver'
import { slantedSketch, steppedSketch, type Step } from '../core/test/support/chains'
import { atMost, medianTime, type Row } from './row'

/** A shaft of so many steps, two lines to a step. */
export function shaft(steps: number): Step[] {
  return Array.from({ length: steps }, (_, i) => ({
    diameter: 20 + 8 * Math.sin(i) + (i % 2) * 12,
    length: 6 + (i % 5),
  }))
}

/** A zigzag of lines that all need equations: nothing in it is axial or radial. */
function slanted(lines: number): { length: number; angle: number }[] {
  return Array.from({ length: lines }, (_, i) => ({
    length: 5 + (i % 7),
    angle: (i % 2 === 0 ? 1 : -1) * (0.2 + 0.05 * (i % 9)),
  }))
}

function coldSolve(make: () => ReturnType<typeof steppedSketch>, rounds: number): number {
  return medianTime(rounds, make, ({ sketch, values }) => {
    if (!solve(sketch, values).solved) throw new Error('the bench sketch does not solve')
  })
}

function dragStep(
  make: () => ReturnType<typeof steppedSketch>,
  freed: string,
  point: string,
): number {
  const { sketch, values } = make()
  values.delete(freed)
  const session = startDrag(sketch, values, [point])
  if (!session.movable) throw new Error('the bench sketch does not move')
  return medianTime(
    200,
    (i) => ({ x: 0.02 * i, y: 0.01 * i }),
    (by) => session.move(by),
  )
}

/** A stepped shaft of 60 lines with so many distances that contradict it: how soon they are told, in ms. */
function told(contradictions: number): number {
  return medianTime(
    20,
    () => {
      const { sketch, values } = steppedSketch(shaft(30))
      const more = Array.from({ length: contradictions }, (_, i) => {
        const kind = { kind: 'distance', a: 'p0', b: `p${59 - 2 * i}` } as const
        values.set(`x${i}`, 400 + i)
        return { ...kind, id: `x${i}`, name: `x${i}`, formula: '', reference: false }
      })
      return { sketch: { ...sketch, sizes: [...sketch.sizes, ...more] }, values }
    },
    ({ sketch, values }) => {
      const { disagreements } = solve(sketch, values)
      if (disagreements.length !== contradictions) throw new Error('a contradiction is not told')
    },
    5,
  )
}

/** How fast sketches solve and follow a drag, and how that grows. */
export function solverRows(): Row[] {
  const random = createRandom(7)
  const stepped = (steps: number) => () => steppedSketch(shaft(steps), 0.5, random)
  const zigzag = (lines: number) => () => slantedSketch(slanted(lines), 0.05, random)
  const shaft60 = coldSolve(stepped(30), 60)
  const shaft600 = coldSolve(stepped(300), 41)
  const zigzag60 = coldSolve(zigzag(60), 60)
  const zigzag600 = coldSolve(zigzag(600), 41)
  return [
    atMost('cold solve, stepped shaft of 60 lines', shaft60, 'ms', 5),
    atMost('cold solve, slanted chain of 60 lines', zigzag60, 'ms', 5),
    atMost('ten times the lines, stepped shaft', shaft600 / shaft60, '× the time', 15),
    atMost('ten times the lines, slanted chain', zigzag600 / zigzag60, '× the time', 15),
    atMost('a contradiction told, shaft of 60 lines', told(1), 'ms', 100),
    atMost('ten contradictions told, shaft of 60 lines', told(10), 'ms', 100),
    atMost('drag step, stepped shaft of 60 lines', dragStep(stepped(30), 'd9', 'p19'), 'ms', 1),
    atMost('drag step, slanted chain of 60 lines', dragStep(zigzag(60), 'a30', 'p60'), 'ms', 1),
  ]
}
