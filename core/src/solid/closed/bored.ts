import { vec, type Vec } from '../../geometry'
import { once } from '../../once'
import { faceName } from '../../names'
import { edgeKey, type Section } from '../../section'
import type { SolidPlan, SolidTool } from '../plan'
import { takenApart } from './apart'
import { crossed, type Crossing } from './crossed'
import { drillIn } from './drilled'
import { milledBy } from './milled'
import { millingOf, type Called, type Milling } from './milling'
import { openedThrough } from './pierced'

/** Something that runs along the axis through plane faces of a full turn. */
interface BoredAlong {
  readonly step: string
  readonly mark: string
  /** The plane faces of the full turn before and behind it, by their places along the axis: what it goes between. */
  readonly between: readonly [number, number]
}

/** A hole turned about an axis of its own: what of its tool lies between the faces. */
export interface BoredRound extends BoredAlong {
  readonly kind: 'round'
  /** Material of the tool; its axis begins at a place, and runs along the part’s or against it. */
  readonly section: Section
  readonly at: Vec
  readonly z: number
  readonly way: 1 | -1
}

/** An outline drawn out along the axis. */
export interface BoredOutline extends BoredAlong {
  readonly kind: 'outline'
  readonly outline: Section
  /** From the outline’s own directions to the part’s, square to the axis. */
  readonly put: (p: Vec) => Vec
  /** Where its first and its last end are along the axis. */
  readonly ends: readonly [number, number]
}

/** What is milled or drilled from outside towards the axis, with the names of the faces it leaves. */
export interface BoredAside extends Milling {
  readonly kind: 'aside'
  /** One for each piece of the outline. */
  readonly walls: readonly string[]
  /** Of its floor; none where it goes through. */
  readonly ground: string | undefined
  /** The radius of the bore it opens into where it goes through; 0 where it goes on to the other side. */
  readonly opens: number
}

export type Bored = BoredRound | BoredOutline | BoredAside

/**
 * All that was taken of the full turn a plan begins with, where that is holes and outlines along its axis between plane
 * faces, and what is milled and drilled towards it from outside, none of which touches another; undefined where it is
 * more, or there is nothing of it.
 */
export const boredIn = once((plan: SolidPlan): readonly Bored[] | undefined => {
  if (plan.ops.length === 0 || plan.base.regions.length !== 1 || !takenApart(plan)) return undefined
  const all: Bored[] = []
  for (const op of plan.ops) {
    if (op.kind !== 'combine') return undefined
    for (const tool of op.tools) {
      const bored = boredBy(tool, op.step, plan.base)
      if (!bored) return undefined
      all.push(...bored)
    }
  }
  return all
})

function boredBy(tool: SolidTool, step: string, base: Section): readonly Bored[] | undefined {
  const { mark } = tool
  if (tool.kind === 'turned') {
    const found = drillIn(tool, base)
    if (!found) return crossed(tool, base)?.map((c) => crossingAside(c, mark))
    return found.parts.flatMap(({ between, part: section }): BoredRound[] => {
      if (!section || section.regions.length === 0) return []
      const { x, y, z, way } = found.drill
      return [{ kind: 'round', step, mark, between, section, at: vec(x, y), z, way }]
    })
  }
  if (tool.kind !== 'prism' || tool.draft) return undefined
  const milling = milledBy(tool, base) && millingOf(tool)
  if (milling) {
    const { walls, ground } = milling
    const named = (called: Called): string => `${nameOf(called, step)}${mark}`
    return [{ ...milling, kind: 'aside', walls: walls.map(named), ground: named(ground), opens: 0 }]
  }
  const found = openedThrough(tool, base)
  // What stands within an outline that goes through would be a piece by itself.
  if (!found || tool.outline.regions[0]?.holes.length !== 0) return undefined
  const { met, put, ends } = found
  return met.map((between): BoredOutline => {
    return { kind: 'outline', step, mark, between, outline: tool.outline, put, ends }
  })
}

const nameOf = (called: Called, step: string): string =>
  typeof called === 'string' ? faceName(step, called) : edgeKey(called)

const crossingAside = ({ milling, opens, wall, ground }: Crossing, mark: string): BoredAside => ({
  ...milling,
  kind: 'aside',
  walls: milling.outline.map(() => `${edgeKey(wall)}${mark}`),
  ground: opens === undefined ? `${edgeKey(ground)}${mark}` : undefined,
  opens: opens ?? 0,
})
