import {
  offsetSection,
  sectionArea,
  shellOf,
  wallOf,
  type Section,
  type SectionEdge,
} from '@lathica/core/section'
import type { Kind } from '../kind'
import type { Random } from '../random'
import { pieceTo, sectionOf, smallerDrawn, star, stepped, type Drawn } from './make'
import {
  areaAbove,
  clippedArea,
  grown,
  mirrored,
  pathsOf,
  perimeterOf,
  thickened,
} from './polygons'

const CHORD = 1e-3

interface Layered {
  readonly drawn: Drawn
  readonly by: number
  readonly way: 'grow' | 'shrink' | 'shellInside' | 'shellOutside' | 'wall'
}

function make(random: Random): Layered {
  const way = random.pick(['grow', 'shrink', 'shellInside', 'shellOutside', 'wall'] as const)
  const drawn = random.chance(0.4)
    ? stepped(random)
    : star(random, random.pick([0, 1]), random.pick([0, 0.3, 0.6]))
  return { drawn, by: Number(random.between(0.1, 2.5).toFixed(random.pick([0, 1, 3]))) || 0.5, way }
}

/** What a way makes of a section, and what polygons say of its area. */
function both({
  drawn,
  by,
  way,
}: Layered): { made: Section | undefined; wanted: number; round: number } | undefined {
  if (way === 'wall') {
    const chain = drawn.slice(1).map((side, i): SectionEdge => ({
      piece: pieceTo(drawn[i]?.to ?? side.to, side),
      name: { step: 's', entity: `e${i}`, role: 'drawn' },
    }))
    if (chain.length === 0) return undefined
    const made = wallOf(chain, { step: 'w', left: by, right: by, corners: 'round', ends: 'round' })
    const paths = thickened(
      chain.map((e) => e.piece),
      by,
      CHORD,
    )
    const round = 2 * chain.length * 12 + 10
    return { made, wanted: areaAbove(paths), round }
  }
  const section = sectionOf(drawn, 's')
  if (section.regions.length === 0) return undefined
  const paths = pathsOf(section, CHORD)
  const whole = mirrored(paths)
  const round = perimeterOf(section) + 10
  if (way === 'grow' || way === 'shrink') {
    const signed = way === 'grow' ? by : -by
    return {
      made: offsetSection(section, signed, 'round', 'o'),
      wanted: areaAbove(grown(whole, signed, CHORD)),
      round,
    }
  }
  const side = way === 'shellInside' ? 'inside' : 'outside'
  const made = shellOf(section, {
    step: 'w',
    side,
    thickness: by,
    open: new Set(),
    faces: new Map(),
    corners: 'round',
  })
  const other = grown(whole, side === 'inside' ? -by : by, CHORD)
  const wanted =
    side === 'inside'
      ? areaAbove(whole) - clippedArea(other, paths, 'common')
      : areaAbove(other) - areaAbove(whole)
  return { made, wanted, round }
}

export const layers: Kind<Layered> = {
  name: 'layers',
  batch: 20,
  make,
  fault: (given) => {
    try {
      const told = both(given)
      if (!told) return undefined
      const { made, wanted, round } = told
      const near = round * 3 * CHORD + 2e-3
      if (!made) return `${given.way} has no result; polygons say ${wanted}`
      const area = sectionArea(made)
      return Math.abs(area - wanted) > near
        ? `${given.way}: ${area}, polygons say ${wanted}`
        : undefined
    } catch (error) {
      return `${given.way} threw: ${String(error)}`
    }
  },
  *smaller(given) {
    for (const drawn of smallerDrawn(given.drawn)) yield { ...given, drawn }
    for (const digits of [0, 1]) {
      const by = Number(given.by.toFixed(digits))
      if (by > 0 && by !== given.by) yield { ...given, by }
    }
  },
}
