import { describeItem, findItem } from '../constraints'
import { fail, type Problem } from '../result'
import { entityName, type DrawnSketch, type Sketch } from '../sketch'
import { formatLength } from '../units'
import type { Part } from '../part'
import type { ProfileFault } from '../section'
import type { Disagreement } from '../solver'

/** More constraints than these are counted, not named: the values are what one would change. */
const MOST_NAMED = 3

/** Constraints and sizes in words, the sizes first. */
export function nameItems(sketch: Sketch, ids: readonly string[]): string[] {
  const items = ids.flatMap((id) => findItem(sketch, id) ?? [])
  const sizes = items.filter((item) => 'formula' in item)
  const others = items.filter((item) => !('formula' in item))
  const counted = sizes.length > 0 && others.length > MOST_NAMED
  return [
    ...sizes.map((item) => describeItem(sketch, item)),
    ...(counted
      ? [`and ${others.length} constraints`]
      : others.map((item) => describeItem(sketch, item))),
  ]
}

/** A disagreement in words: who is in it and what would mend it. */
export function disagreementProblem(sketch: Sketch, disagreement: Disagreement): Problem {
  const names = nameItems(sketch, disagreement.members)
  const list = names.join('; ')
  const involves = { involves: disagreement.members }
  if (disagreement.kind === 'conflict') {
    return fail(
      'sketch.conflict',
      names.length === 1 ? `This cannot hold: ${list}.` : `These cannot all hold: ${list}.`,
      'Change a value, delete one, or make one a reference.',
      involves,
    ).problem
  }
  return fail(
    'sketch.redundant',
    `These say the same twice: ${list}.`,
    'Delete one, or make a size of them a reference.',
    involves,
  ).problem
}

/** A fault of a profile as a sentence with its mend. */
export function faultProblem(
  fault: ProfileFault,
  sketch: DrawnSketch,
  { units }: Pick<Part, 'units'>,
): Problem {
  const at = `${formatLength(fault.at.x, units)}, ⌀${formatLength(2 * fault.at.y, units)}`
  const names = fault.entities.map((id) => entityName(sketch, id))
  const involves = { involves: fault.entities }
  switch (fault.kind) {
    case 'open': {
      const gap = fault.gap === undefined ? '' : `, ${formatLength(fault.gap, units)} from the next`
      return fail(
        'profile.open',
        `Profile ${sketch.name} is open: ${names.join()} ends loose at ${at}${gap}.`,
        'Draw on to another end or to the axis.',
        involves,
      ).problem
    }
    case 'crossing': {
      const [one, two] = fault.entities
      if (one === two) {
        return fail(
          'profile.loop',
          `In profile ${sketch.name}, ${names[0] ?? ''} crosses itself at ${at}.`,
          'Bring its handles nearer to its ends, or apart.',
          involves,
        ).problem
      }
      return fail(
        'profile.crossing',
        `Profile ${sketch.name} meets itself: ${names.join(' and ')} at ${at}.`,
        'Move one of them, or delete what is doubled.',
        involves,
      ).problem
    }
    case 'doubled':
      return fail(
        'profile.doubled',
        `In profile ${sketch.name}, ${names.join(' and ')} lie on one another.`,
        'Make them one.',
        involves,
      ).problem
    case 'belowAxis':
      return fail(
        'profile.axis',
        `Profile ${sketch.name} crosses the axis: ${names.join()} reaches below it.`,
        'Move its ends onto the axis or above it.',
        involves,
      ).problem
    case 'zeroLength':
      return fail(
        'profile.zero',
        `${names.join()} of profile ${sketch.name} has no length.`,
        'Delete it, or move its ends apart.',
        involves,
      ).problem
  }
}
