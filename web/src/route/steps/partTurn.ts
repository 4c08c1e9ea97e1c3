import { isFaceName, pointName } from '@lathica/core/names'
import { isEndSketch } from '@lathica/core/sketch'
import type { Part, Step } from '@lathica/core/part'
import { stepRules } from '@lathica/core/route'
import { angle, choice, faces, optionalAngle, type Field } from './field'

export const SIDES = { one: 'one side', symmetric: 'evenly', both: 'both sides' }

/** How a part turn goes, of profiles and of walls. */
interface PartTurn {
  readonly turn: string
  readonly turnTo: string
  readonly side: 'one' | 'both' | 'symmetric'
  readonly back: string
}

/** By which angle, to which side, or up to which plane. */
export function partTurnFields(
  own: PartTurn,
  part: Part,
  stepId: string,
  change: (to: Partial<PartTurn>) => Step,
): Field[] {
  const points = turnPoints(part)
  const toFace = isFaceName(own.turnTo)
  const upTo = own.turnTo !== ''
  return [
    ...(upTo ? [] : [optionalAngle('Turn', own.turn, 'full', (turn) => change({ turn }))]),
    ...((own.turn.trim() === '' && !upTo) || toFace || Object.keys(points).length === 0
      ? []
      : [
          choice('Up to', own.turnTo, { '': 'its own angle', ...points }, (turnTo) =>
            change({ turnTo }),
          ),
        ]),
    ...((own.turn.trim() === '' && !upTo) || (upTo && !toFace) || !standsOnSolid(part, stepId)
      ? []
      : [
          faces(
            {
              ...{ label: 'Up to a face', accept: 'plane', many: false, solids: true },
              ...{ keys: toFace ? [own.turnTo] : [], none: 'by its own angle' },
            },
            ([turnTo = '']) => change({ turnTo }),
          ),
        ]),
    ...(upTo || own.turn.trim() === ''
      ? []
      : [
          choice('To', own.side, SIDES, (v) => change({ side: v as 'one' })),
          ...(own.side === 'both'
            ? [angle('Other side', own.back, (back) => change({ back }))]
            : []),
        ]),
  ]
}

/** The points of end sketches that a turn may go up to. */
const turnPoints = (part: Part): Record<string, string> =>
  Object.fromEntries(
    part.sketches
      .filter((s) => isEndSketch(s))
      .flatMap((s) =>
        s.points.map((p, i) => [pointName(s.id, p.id), `point ${i + 1} of end sketch ${s.name}`]),
      ),
  )

/** Whether a step before made a solid with faces through the axis. */
const standsOnSolid = (part: Part, stepId: string): boolean =>
  part.route
    .slice(
      0,
      part.route.findIndex((s) => s.id === stepId),
    )
    .some((s) => s.kind !== 'unknown' && stepRules(s).planes === true)
