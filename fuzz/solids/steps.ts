import type { Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { edgeKey, edgesOf } from '@lathica/core/section'
import { closedFigures } from '@lathica/core/solid'
import type { Kind } from '../kind'
import type { Random } from '../random'
import { HOSTILE } from '../sections/hostile'
import { partWith, revolveStep, sketchOf, stepFault, type StepData } from '../sections/parts'
import { pictureFault } from './pictures'
import { volumeOf, type Bar, type Taken } from './slices'

/** Something drilled or milled, with what is typed for it; angles in degrees. */
interface Worked {
  readonly kind: 'holes' | 'cross' | 'flats' | 'keyway'
  /** Which land, of keyways. */
  readonly land: number
  readonly count: number
  readonly angle: number
  /** A distance along the axis; of holes the diameter of their circle. */
  readonly at: number
  /** A diameter, of keyways the width, of flats the length. */
  readonly size: number
  readonly deep: number
  /** Of keyways. */
  readonly length: number
  readonly through: boolean
  /** A cone at the end, or half-round ends. */
  readonly round: boolean
  /** A field that holds what no one means instead, and what. */
  readonly hostile: readonly [string, string] | undefined
}

interface Given {
  readonly lands: Bar['lands']
  readonly bore: number
  readonly works: readonly Worked[]
}

const TIP = 118

function partOf({ lands, bore, works }: Given): Part {
  const corners = [{ x: 0, y: bore }]
  let x = 0
  for (const { radius, length } of lands) {
    corners.push({ x, y: radius })
    x += length
    corners.push({ x, y: radius })
  }
  corners.push({ x, y: bore })
  const sketch = sketchOf(
    'sk',
    corners.map((to) => ({ to, bulge: 0 })),
  )
  const turned = [revolveStep('step0', 5, 'sk')]
  const keys = keysOf(partWith([sketch], turned))
  const steps = works.map((w, i): StepData => {
    const step = { ...stepOf(w, keys), id: `step${i + 1}`, number: 10 * (i + 1), aside: false }
    return w.hostile ? { ...step, [w.hostile[0]]: w.hostile[1] } : step
  })
  return partWith([sketch], [...turned, ...steps])
}

interface Keys {
  readonly face: string
  /** Of the lands, from left to right. */
  readonly lands: readonly string[]
}

/** What the faces of a bar are called. */
function keysOf(bar: Part): Keys {
  const edges = edgesOf(evaluate(bar).bodies[0]?.section ?? { regions: [] })
  const isLevel = ({ piece: { from, to } }: (typeof edges)[number]): boolean =>
    Math.abs(from.y - to.y) < 1e-9
  const least = Math.min(...edges.map((e) => e.piece.from.y))
  const face = edges.find((e) => !isLevel(e) && e.piece.from.x === 0)
  const lands = edges
    .filter((e) => isLevel(e) && e.piece.from.y > least + 1e-9)
    .sort((a, b) => a.piece.from.x + a.piece.to.x - b.piece.from.x - b.piece.to.x)
  return { face: face ? edgeKey(face.name) : '', lands: lands.map((e) => edgeKey(e.name)) }
}

function stepOf(w: Worked, keys: Keys): StepData {
  const [body, phase, count] = ['body1', String(w.angle), String(w.count)]
  const hole = {
    ...{ kind: 'holes', body, layout: 'circle', sketch: '', count, start: phase, range: '' },
    ...{ skip: [], places: [], from: '', diameter: String(w.size), depth: String(w.deep) },
    ...{ tip: w.round ? 'cone' : 'flat', tipAngle: String(TIP), head: 'none', headDiameter: '' },
    ...{ headDepth: '', headAngle: '90', thread: '' },
  }
  switch (w.kind) {
    case 'holes': {
      const reach = w.through ? 'through' : 'depth'
      return { ...hole, way: 'end', on: keys.face, circle: String(w.at), distance: '', reach }
    }
    case 'cross':
      return { ...hole, way: 'cross', on: '', circle: '', distance: String(w.at), reach: 'through' }
    case 'flats':
      return {
        ...{ kind: 'flats', body, count, measure: 'depth', size: String(w.deep), end: 'right' },
        ...{ distance: '', length: String(w.size), phase },
      }
    case 'keyway':
      return {
        ...{ kind: 'slot', body, form: 'keyway', on: keys.lands[w.land] ?? '', from: '' },
        ...{ distance: String(w.at), width: String(w.size), depth: String(w.deep), cutter: '' },
        ...{ length: String(w.length), ends: w.round ? 'round' : 'square', count, phase },
      }
  }
}

/** What a piece of work takes away by its own measures. */
function takenBy(w: Worked, { lands }: Given): Taken[] {
  const begin = (n: number): number => lands.slice(0, n).reduce((sum, l) => sum + l.length, 0)
  const whole = begin(lands.length)
  const angles = Array.from(
    { length: w.count },
    (_, i) => ((w.angle + (360 * i) / w.count) * Math.PI) / 180,
  )
  return angles.map((angle): Taken => {
    switch (w.kind) {
      case 'holes': {
        const tip = w.round && !w.through ? (TIP * Math.PI) / 360 : undefined
        const deep = w.through ? whole + 1 : w.deep
        return { kind: 'hole', far: w.at / 2, angle, radius: w.size / 2, deep, tip }
      }
      case 'cross':
        return { kind: 'cross', at: w.at, angle, radius: w.size / 2 }
      case 'flats': {
        const from = whole - w.size
        const met = lands.filter((l, n) => begin(n) + l.length > from + 1e-9)
        const out = Math.max(...met.map((l) => l.radius)) - w.deep
        return { kind: 'flat', out, angle, from, to: whole }
      }
      case 'keyway': {
        const from = begin(w.land) + w.at
        const out = (lands[w.land]?.radius ?? 0) - w.deep
        return {
          kind: 'keyway',
          out,
          angle,
          from,
          to: from + w.length,
          width: w.size,
          round: w.round,
        }
      }
    }
  })
}

const FIELDS: Record<Worked['kind'], readonly string[]> = {
  holes: ['circle', 'count', 'start', 'range', 'diameter', 'depth', 'tipAngle', 'headDiameter'],
  cross: ['count', 'start', 'range', 'diameter', 'distance', 'depth'],
  flats: ['count', 'size', 'distance', 'length', 'phase'],
  keyway: ['count', 'phase', 'distance', 'width', 'depth', 'length'],
}

function work(random: Random, lands: Bar['lands'], hostile: boolean): Worked {
  const kind = random.pick(['holes', 'cross', 'flats', 'keyway'] as const)
  const land = random.below(lands.length)
  const { radius = 0, length = 0 } = lands[land] ?? {}
  const whole = lands.reduce((sum, l) => sum + l.length, 0)
  const first = lands[0]?.radius ?? 0
  const width = random.between(1, 0.8 * radius)
  const at = {
    holes: random.between(first, 2 * first - 3),
    cross: random.between(1, whole - 1),
    flats: 0,
    keyway: random.between(0.2, length / 4),
  }[kind]
  const size = {
    holes: random.between(1, first / 3),
    cross: random.between(1, 0.4 * radius),
    flats: random.between(1, 0.7 * whole),
    keyway: Math.min(width, length / 3),
  }[kind]
  return {
    ...{ kind, land, at, size, count: 1 + random.below(kind === 'cross' ? 2 : 4) },
    ...{ angle: random.below(360), through: random.chance(0.4), round: random.chance(0.5) },
    deep: kind === 'holes' ? random.between(1, 0.9 * whole) : random.between(0.3, radius / 3),
    length: random.between(length / 2.5, 0.7 * length),
    hostile: hostile ? [random.pick(FIELDS[kind]), random.pick(HOSTILE)] : undefined,
  }
}

/** Volumes agree to this share of the whole: what polygons of many sides and Gauss' rule leave. */
const NEAR = 1e-7

function faultOf(given: Given): string | undefined {
  try {
    const state = evaluate(partOf(given))
    const wrong = stepFault(state)
    if (wrong !== undefined) return wrong
    const [body] = state.bodies
    const told = body?.plan && closedFigures(body.plan)
    if (!body?.plan || !told) return undefined
    if (!(told.volume > 0)) return `a body of volume ${told.volume}`
    const seen = pictureFault(body.plan, told)
    if (seen !== undefined) return seen
    if (given.works.some((w) => w.hostile)) return undefined
    const done = given.works.filter((_, i) => state.steps[i + 1]?.status === 'done')
    const volume = volumeOf({ ...given, taken: done.flatMap((w) => takenBy(w, given)) })
    const whole = given.lands.reduce((v, l) => v + Math.PI * l.radius ** 2 * l.length, 0)
    if (Math.abs(told.volume - volume) <= NEAR * whole) return undefined
    return `${told.volume} mm³ instead of ${volume}`
  } catch (error) {
    return `threw: ${String(error)}`
  }
}

/** Bars with holes, cross holes, flats and keyways, told without the kernel, against slices; and hostile values. */
export const solidSteps: Kind<Given> = {
  name: 'solid steps',
  batch: 5,
  make: (random) => {
    const lands = Array.from({ length: 1 + random.below(3) }, () => ({
      radius: random.between(6, 30),
      length: random.between(5, 25),
    }))
    const least = Math.min(...lands.map((l) => l.radius))
    const bore = random.chance(0.4) ? random.between(1, 0.5 * least) : 0
    const hostile = random.chance(0.3)
    const works = Array.from({ length: 1 + random.below(3) }, () => work(random, lands, hostile))
    return { lands, bore, works }
  },
  fault: faultOf,
  counts: (given) => {
    if (given.works.some((w) => w.hostile)) return ['with hostile values']
    const plan = evaluate(partOf(given)).bodies[0]?.plan
    return [plan && closedFigures(plan) ? 'told in closed form' : 'left to the kernel, or not done']
  },
  *smaller(given) {
    for (let i = 0; given.works.length > 1 && i < given.works.length; i++) {
      yield { ...given, works: given.works.filter((_, k) => k !== i) }
    }
    for (const [i, w] of given.works.entries()) {
      if (w.count > 1) yield { ...given, works: given.works.with(i, { ...w, count: 1 }) }
      if (w.angle > 0) yield { ...given, works: given.works.with(i, { ...w, angle: 0 }) }
    }
    if (given.bore > 0) yield { ...given, bore: 0 }
  },
}
