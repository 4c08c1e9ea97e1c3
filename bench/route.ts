import { METRIC } from '@lathica/core/units'
import { cubic, line, simplePieces, vec } from '@lathica/core/geometry'
import {
  combine,
  cornersOf,
  edgeKey,
  edgesOf,
  profileOf,
  type Section,
} from '@lathica/core/section'
import type { NewStep, Part, Step } from '@lathica/core/part'
import { evaluate, faceWords } from '@lathica/core/route'
import { addStep, changeStep, perform } from '@lathica/core/edit'
import { unsoundness } from '../core/src/section'
import { atMost, medianTime, type Row } from './row'
import { longShaft } from './update'

/** Booleans of sections, and routes of many steps on one. */
export function routeRows(): Row[] {
  const [a, b] = [comb(49, 0), comb(49, 0.37)]
  const edges = edgesOf(a).length
  const boolean = medianTime(
    501,
    () => undefined,
    () => {
      if (!combine(a, b, 'cut')) throw new Error('the outline came out open')
    },
    500,
  )
  const [c, d] = [waves(49, 0), waves(49, 0.37)]
  const curved = medianTime(
    51,
    () => undefined,
    () => {
      if (!combine(c, d, 'cut')) throw new Error('the outline came out open')
    },
  )
  const part = longRoute()
  const state = evaluate(part)
  const failed = state.steps.find((s) => s.status !== 'done')
  if (failed) throw new Error(`${failed.stepId}: ${failed.problem?.message}`)
  const first = edgesOf(state.steps[0]?.bodies[0]?.section ?? { regions: [] }).length
  const whole = medianTime(51, () => afresh(part), evaluated, 50)
  const last = part.route.at(-1)
  const after = medianTime(
    201,
    (i) => {
      const changed = perform(
        part,
        changeStep(last?.id ?? '', (s) => ({ ...s, sets: sets(1 + (i % 7) * 0.01) }) as Step),
      )
      if (!changed.ok) throw new Error(changed.problem.message)
      return changed.value
    },
    evaluated,
    100,
  )
  return [
    atMost(`cut of two sections of ${edges} edges`, boolean, 'ms', 0.5),
    atMost(`against it, one of ${edgesOf(c).length} free curves`, curved / boolean, 'times', 25),
    atMost(`route of ${part.route.length} steps on ${first} edges, whole`, whole, 'ms', 20),
    atMost('the same after a change in its last step', after, 'ms', 2),
    atMost('check of all its results, as a share of it', (100 * checked(state)) / whole, '%', 5),
    atMost('cut of 12 free curves by the same, hardly moved, worst', nearCurves(), 'ms', 50),
    atMost('memory a route of 40 steps holds', heldBy(part), 'MB', 50),
  ]
}

/** What the check of every section that a route's steps made takes, in ms. */
function checked(state: ReturnType<typeof evaluate>): number {
  const made = new Set(state.steps.flatMap((s) => s.bodies.map((b) => b.section)))
  return medianTime(
    101,
    // A section is checked once; a copy is one that was not.
    () => [...made].map((section) => ({ ...section })),
    (sections) => {
      if (sections.some((s) => unsoundness(s) !== undefined)) throw new Error('a step is unsound')
    },
  )
}

/** The slowest cut of a bar topped by 12 free curves by itself moved by less than can be seen, in ms. */
function nearCurves(): number {
  const still = bumps(0)
  const times = [1e-7, 1e-6, 1.5e-6, 3e-6, 1e-5, 1e-4, 1e-2].map((by) =>
    medianTime(
      11,
      () => bumps(by),
      (moved) => void combine(still, moved, 'cut'),
      5,
    ),
  )
  return Math.max(...times)
}

/** A bar of 12 free curves on top that swing up and down, so far along the axis. */
function bumps(by: number): Section {
  const ends = (i: number) => vec(10 * i + by, 5)
  const tops = Array.from({ length: 12 }, (_, k) => {
    const i = 12 - k
    return cubic(ends(i), vec(10 * i - 3 + by, 8), vec(10 * i - 6 + by, 3), ends(i - 1))
  })
  const corners = [ends(0), vec(by, 0), vec(120 + by, 0), ends(12)]
  const pieces = [
    ...corners.slice(1).map((p, i) => line(corners[i] ?? p, p)),
    ...tops.flatMap(simplePieces),
  ]
  const edges = pieces.map((piece, n) => ({
    piece,
    name: { step: by === 0 ? 'a' : 'b', entity: `n${n}`, role: 'drawn' as const },
  }))
  return profileOf(edges, 'a').section
}

/** Nothing is weighed: the bench asks for sections, as a drag does. */
function evaluated(part: Part): void {
  if (evaluate(part).bodies[0]?.section.regions.length === 0) throw new Error('nothing is made')
}

/** A comb of lands of two heights: twice as many edges as lands, and two more. */
function comb(lands: number, shift: number): Section {
  const top = Array.from({ length: lands }, (_, i) => [
    vec(i + shift, i % 2 === 0 ? 10 : 8.5),
    vec(i + 1 + shift, i % 2 === 0 ? 10 : 8.5),
  ]).flat()
  const corners = [vec(shift, 2), ...top, vec(lands + shift, 2)]
  const edges = corners.map((p, i) => ({
    piece: line(p, corners[(i + 1) % corners.length] ?? p),
    name: { step: shift === 0 ? 'a' : 'b', entity: `e${i}`, role: 'drawn' as const },
  }))
  return profileOf(edges, 'a').section
}

/** As a comb, but every land is a free curve that runs up or down to the next. */
function waves(lands: number, shift: number): Section {
  const step = shift === 0 ? 'a' : 'b'
  const name = (n: number) => ({ step, entity: `w${n}`, role: 'drawn' as const })
  const height = (i: number): number => (i % 2 === 0 ? 10 : 8.5)
  const tops = Array.from({ length: lands }, (_, i) => {
    const [x, y, z] = [i + shift, height(i), height(i + 1)]
    return cubic(vec(x, y), vec(x + 0.5, y), vec(x + 0.5, z), vec(x + 1, z))
  })
  const [first, last] = [tops[0]?.from ?? vec(0, 0), tops.at(-1)?.to ?? vec(0, 0)]
  const rest = [last, vec(lands + shift, 2), vec(shift, 2), first]
  const lines = rest.slice(1).map((p, i) => line(rest[i] ?? p, p))
  const edges = [...tops.flatMap(simplePieces), ...lines].map((piece, n) => ({
    piece,
    name: name(n),
  }))
  return profileOf(edges, step).section
}

const sets = (radius: number): object[] => [{ pick: { kind: 'inside' }, radius: `${radius / 10}` }]

function put(part: Part, step: NewStep): Part {
  const result = perform(part, addStep(step))
  if (!result.ok) throw new Error(result.problem.message)
  return result.value
}

/** A long shaft with a bore and so many grooves with rounded corners. */
export function grooved(grooves: number): Part {
  const shaft = longShaft()
  const body = shaft.bodies[0]?.id ?? ''
  const bored = put(shaft, {
    ...{ kind: 'bore', body, end: 'left', parts: [{ diameter: '6', depth: '' }] },
    ...{ upTo: '', tip: 'flat', tipAngle: '118', sinkDiameter: '', sinkAngle: '90' },
  })
  const turned = evaluate(bored).bodies[0]?.section ?? { regions: [] }
  const lands = edgesOf(turned).filter((e) => faceWords(e, METRIC).startsWith('cylinder'))
  return Array.from({ length: grooves }, (_, i) => lands[Math.floor((i * lands.length) / grooves)])
    .flatMap((land) => land ?? [])
    .reduce(
      (part, land) =>
        put(part, {
          ...{ kind: 'groove', body, on: edgeKey(land.name), form: 'rectangular' },
          place: { from: 'middle', second: '', to: 'middle', distance: '' },
          sizes: { width: '0.5', depth: '0.5', bottom: '', radius: '0.1' },
          ...{ count: '1', pitch: '' },
        }),
      bored,
    )
}

/** The same with chamfers and a fillet of every inside corner: forty steps in all. */
export function longRoute(): Part {
  const start = grooved(19)
  const body = start.bodies[0]?.id ?? ''
  const corners = cornersOf(evaluate(start).bodies[0]?.section ?? { regions: [] }).filter(
    (c) => c.turn > 0 && c.key.split('|').every((k) => /\/l\d+$/.test(k)),
  )
  const chamfered = Array.from(
    { length: 18 },
    (_, i) => corners[Math.floor((i * corners.length) / 18)],
  )
    .flatMap((corner) => corner ?? [])
    .reduce((part, corner) => {
      const pick = { kind: 'corners' as const, corners: [corner.key] }
      return put(part, {
        ...{ kind: 'chamfer', body },
        sets: [{ pick, along: '0.1', across: '', angle: '45' }],
      })
    }, start)
  return put(chamfered, { kind: 'fillet', body, sets: sets(0.5) as never })
}

/** The part with steps that were never run. */
function afresh(part: Part): Part {
  return { ...part, route: part.route.map((s) => ({ ...s })) }
}

/** What evaluating holds on to, in MB; needs the engine's own garbage collector at hand. */
function heldBy(part: Part): number {
  const collect = (globalThis as { gc?: () => void }).gc
  collect?.()
  const before = process.memoryUsage().heapUsed
  const copies = Array.from({ length: 5 }, () => afresh(part))
  copies.forEach(evaluated)
  collect?.()
  const held = (process.memoryUsage().heapUsed - before) / copies.length / 1e6
  // The parts have to live until here, with all that is remembered of them.
  return copies.every((p) => p.route.length > 0) ? held : 0
}
