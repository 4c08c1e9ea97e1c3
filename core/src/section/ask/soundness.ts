import { distance } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { areaOfLoop } from '../engine/nesting'
import { loopsOf, type Loop, type Section } from '../types'

const sound = new WeakSet<Section>()

/** Ends that follow one another may be this far apart in mm: vertices are merged in chains at most so long. */
const GAP = 4 * VERTEX_TOLERANCE

/**
 * What every section has to be, whatever made it: closed loops of finite places above the axis, outer ones
 * counter-clockwise round some area, holes clockwise, and no more of them than fits inside. It is cheap, and is asked
 * of each step's result.
 * @returns what is not so, in words, or undefined
 */
export function unsoundness(section: Section): string | undefined {
  if (sound.has(section)) return undefined
  for (const loop of loopsOf(section)) {
    const told = looseness(loop)
    if (told) return told
  }
  for (const { outer, holes } of section.regions) {
    const area = areaOfLoop(outer)
    if (!(area > 0)) return 'A region is inside out or encloses nothing.'
    let left = area
    for (const hole of holes) {
      const within = areaOfLoop(hole)
      if (!(within < 0)) return 'A hole is inside out or encloses nothing.'
      left += within
    }
    if (left < -1e-9 * area) return 'Holes are larger than what is around them.'
  }
  sound.add(section)
  return undefined
}

function looseness(loop: Loop): string | undefined {
  for (let i = 0; i < loop.length; i++) {
    const piece = loop[i]?.piece
    const next = loop[(i + 1) % loop.length]?.piece
    if (!piece || !next) return 'An outline has no edges.'
    if (!(distance(piece.to, next.from) <= GAP)) return 'An outline is not closed.'
    if (piece.from.y < -GAP) return 'An outline reaches below the axis.'
  }
  return loop.length === 0 ? 'An outline has no edges.' : undefined
}

/**
 * Whether areas fit what was done with a tool: adding makes no less than there was and no more than both, cutting
 * no more than there was and no less than without all of the tool, the common part is in both.
 * @param areas before, of the tool and after, in mm²
 * @param slack in mm²
 */
export function areasFit(
  effect: 'add' | 'cut' | 'common',
  [before, tool, after]: readonly [number, number, number],
  slack: number,
): boolean {
  switch (effect) {
    case 'add':
      return after >= Math.max(before, tool) - slack && after <= before + tool + slack
    case 'cut':
      return after <= before + slack && after >= before - tool - slack
    case 'common':
      return after <= Math.min(before, tool) + slack && after >= -slack
  }
}
