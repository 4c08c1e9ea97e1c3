import { sectionArea } from '@lathica/core/section'
import type { Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import type { Kind } from '../kind'
import type { Random } from '../random'
import { sectionOf, star, stepped, type Drawn } from './make'
import { partWith, revolveStep, sketchOf } from './parts'
import { clippedPaths, pathsOf, perimeterOf, areaOf } from './polygons'

type Effect = 'add' | 'cut' | 'common'

interface Step {
  readonly drawn: Drawn
  readonly effect: Effect
}

const CHORD = 1e-3

/** A part that turns outline after outline. */
const partOf = (steps: readonly Step[]): Part =>
  partWith(
    steps.map(({ drawn }, s) => sketchOf(`sk${s}`, drawn)),
    steps.map(({ effect }, s) => revolveStep(`step${s}`, 10 * (s + 1), `sk${s}`, { effect })),
  )

const areaAt = (part: Part): number => {
  const section = evaluate(part).bodies[0]?.section
  return section ? sectionArea(section) : 0
}

/** Routes of up to fifteen steps against polygons, and grown step by step against run at once. */
export const routes: Kind<readonly Step[]> = {
  name: 'routes',
  batch: 4,
  make: (random: Random) =>
    Array.from({ length: 2 + random.below(14) }, (_, i): Step => ({
      drawn: random.chance(0.5)
        ? stepped(random)
        : star(random, random.pick([0, 1]), random.pick([0, 0.3])),
      effect: i === 0 ? 'add' : random.pick(['add', 'add', 'cut', 'cut', 'common'] as const),
    })),
  fault: (steps) => {
    const drawn = steps.map((s, i) => sectionOf(s.drawn, `s${i}`))
    if (drawn.some((s) => s.regions.length === 0)) return undefined
    const whole = partOf(steps)
    let model: ReturnType<typeof pathsOf> = []
    let round = 0
    let state: ReturnType<typeof evaluate>
    try {
      state = evaluate(whole)
    } catch (error) {
      return `evaluate threw: ${String(error)}`
    }
    for (const [i, { effect }] of steps.entries()) {
      const own = drawn[i]
      const told = state.steps[i]
      if (!own || !told) continue
      if (told.status === 'failed') {
        if (areaOf(model) < 1e-2) return undefined
        return `step ${i} failed: ${told.problem?.message ?? ''}`
      }
      model = clippedPaths(model, pathsOf(own, CHORD), effect)
      round += perimeterOf(own)
      const section = told.bodies[0]?.section
      const area = section ? sectionArea(section) : 0
      if (Math.abs(area - areaOf(model)) > 2.5 * CHORD * round + 1e-3) {
        return `after step ${i} (${effect}): ${area}, polygons say ${areaOf(model)}`
      }
    }
    // What grew, was cut back and grew again is the same as what is run from new.
    const last = steps.length - 1
    const shorter: Part = { ...whole, route: whole.route.slice(0, last) }
    areaAt(shorter)
    const other: Part = { ...whole, route: whole.route.map((s, i) => (i === 0 ? { ...s } : s)) }
    const [again, fresh] = [areaAt(other), areaAt(structuredClone(whole))]
    return again === fresh ? undefined : `remembered ${again}, run anew ${fresh}`
  },
  *smaller(steps) {
    for (let i = 1; i < steps.length; i++) yield steps.filter((_, k) => k !== i)
    for (let i = steps.length - 1; i > 0; i--) yield steps.slice(0, i)
  },
}
