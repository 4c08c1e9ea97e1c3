import { solidProperties } from '@lathica/core/section'
import type { Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import type { Kind } from '../kind'
import type { Random } from '../random'
import { partWith, revolveStep, stepFault, type StepData } from './parts'

/** A small part whose steps are given values that no one means, or shapes that no one draws. */
interface Hostile {
  readonly curve: readonly (readonly [number, number])[]
  readonly steps: readonly StepData[]
}

/** What no one means to type. */
export const HOSTILE = [
  '1e12',
  '-1e12',
  '1e6',
  '999999',
  '1e-12',
  '1e-5',
  '0',
  '-1',
  '0.3',
  '2',
  '7',
  '1e300',
  '1/3',
  '90',
  '1e9 deg',
  '',
  'nonsense',
  '0.001',
]

function step(random: Random, number: number): StepData {
  const value = (): string => random.pick(HOSTILE)
  const base = { id: `step${number}`, number: 10 * number, aside: false, body: 'body1' }
  switch (random.below(5)) {
    case 0:
      return {
        ...base,
        kind: 'shell',
        side: random.pick(['inside', 'outside']),
        thickness: value(),
        open: [],
        faces: [],
        corners: random.pick(['round', 'sharp']),
        follow: 'turn',
      }
    case 1:
      return {
        ...base,
        kind: 'wall',
        sketch: 'open',
        side: random.pick(['inside', 'outside', 'middle', 'both']),
        thickness: value(),
        inner: value(),
        corners: random.pick(['round', 'sharp', 'bevelled']),
        ends: random.pick(['round', 'flat']),
        effect: 'add',
        turn: '',
        turnTo: '',
        turnSide: 'one',
        back: '',
        phase: '',
      }
    case 2:
      return {
        ...base,
        kind: 'fillet',
        sets: [{ pick: { kind: random.pick(['inside', 'outside']) }, radius: value() }],
      }
    case 3:
      return {
        ...base,
        kind: 'chamfer',
        sets: [
          {
            pick: { kind: random.pick(['inside', 'outside']) },
            along: value(),
            across: random.chance(0.5) ? value() : '',
            angle: value(),
          },
        ],
      }
    default:
      return revolveStep(`step${number}`, 10 * number, 'sk', {
        turn: random.chance(0.3) ? value() : '',
      })
  }
}

function partOf({ curve, steps }: Hostile): Part {
  const points = ['a', 'h', 'k', 'b'].map((id, i) => ({
    id,
    x: curve[i]?.[0] ?? 0,
    y: curve[i]?.[1] ?? 0,
  }))
  const [a, , , b] = points
  const line = (id: string, from: string, to: string): object => ({
    id,
    kind: 'line',
    from,
    to,
    role: 'outline',
  })
  const free = {
    id: 'e0',
    kind: 'curve',
    from: 'a',
    to: 'b',
    fromHandle: 'h',
    toHandle: 'k',
    role: 'outline',
  }
  const feet = [
    { id: 'c', x: b?.x ?? 0, y: 0 },
    { id: 'd', x: a?.x ?? 0, y: 0 },
  ]
  const sketch = { name: 'A', plane: 'half', nextId: 99, constraints: [], sizes: [] }
  const drawn = {
    ...sketch,
    id: 'sk',
    points: [...points, ...feet],
    entities: [free, line('e1', 'b', 'c'), line('e2', 'd', 'a')],
  }
  const open = { ...sketch, id: 'open', points, entities: [free] }
  return partWith([drawn, open], [revolveStep('step0', 5, 'sk'), ...steps])
}

/** Longer than this for so small a part, in ms, and something hangs: a hundred times what it takes. */
const TOO_LONG = 20_000

export const hostile: Kind<Hostile> = {
  name: 'hostile values',
  batch: 10,
  make: (random) => {
    const place = (): readonly [number, number] => [random.between(0, 14), random.between(0.5, 12)]
    const [a, b] = [place(), place()]
    const curve = random.chance(0.2) ? [a, a, place(), b] : [a, place(), place(), b]
    return {
      curve,
      steps: Array.from({ length: 1 + random.below(3) }, (_, i) => step(random, i + 1)),
    }
  },
  fault: (given) => {
    const began = performance.now()
    try {
      const state = evaluate(partOf(given))
      const wrong = stepFault(state)
      if (wrong !== undefined) return wrong
      for (const { section } of state.bodies) {
        const volume = section.regions.length > 0 ? solidProperties(section)?.volume : 1
        if (!(volume !== undefined && volume > 0)) return `a body of volume ${volume}`
      }
    } catch (error) {
      return `evaluate threw: ${String(error)}`
    }
    const took = performance.now() - began
    return took > TOO_LONG ? `took ${took} ms` : undefined
  },
  *smaller(given) {
    for (let i = 0; given.steps.length > 1 && i < given.steps.length; i++) {
      yield { ...given, steps: given.steps.filter((_, k) => k !== i) }
    }
    for (const digits of [0, 1, 3]) {
      const curve = given.curve.map(
        ([x, y]) => [Number(x.toFixed(digits)), Number(y.toFixed(digits))] as const,
      )
      if (curve.some(([x, y], i) => x !== given.curve[i]?.[0] || y !== given.curve[i]?.[1]))
        yield { ...given, curve }
    }
  },
}
