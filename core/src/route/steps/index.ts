import { fail, type Result } from '../../result'
import { bore } from './bore'
import { combineBodies, imported, mirror, move } from './bodies'
import { meshToGoBy } from './mesh'
import { overallLength, repeat } from './copies'
import { chamfer, fillet, shell } from './finish'
import { groove } from './groove'
import { extrude, revolve, sweep, wall } from './profileSteps'
import { around, flats, halve, holes, slot } from './solid'
import type { Outcome, StepContext } from './context'
import type { Step } from '../../part'

export { remembered, type Outcome } from './context'

/** Runs one step on the bodies as they stand. */
export function runStep(step: Step, context: StepContext): Result<Outcome> {
  switch (step.kind) {
    case 'revolve':
      return revolve(step, context)
    case 'wall':
      return wall(step, context)
    case 'groove':
      return groove(step, context)
    case 'bore':
      return bore(step, context)
    case 'fillet':
      return fillet(step, context)
    case 'chamfer':
      return chamfer(step, context)
    case 'shell':
      return shell(step, context)
    case 'mirror':
      return mirror(step, context)
    case 'import':
      return imported(step, context)
    case 'mesh':
      return meshToGoBy(step, context)
    case 'move':
      return move(step, context)
    case 'combine':
      return combineBodies(step, context)
    case 'repeat':
      return repeat(step, context)
    case 'length':
      return overallLength(step, context)
    case 'holes':
      return holes(step, context)
    case 'flats':
      return flats(step, context)
    case 'slot':
      return slot(step, context)
    case 'extrude':
      return extrude(step, context)
    case 'sweep':
      return sweep(step, context)
    case 'around':
      return around(step, context)
    case 'halve':
      return halve(step, context)
    case 'unknown':
      return fail(
        'step.unknown',
        `This version does not know the step “${String(step.kept['kind'])}”.`,
        'It is kept as it is; open the part with the version that made it.',
      )
  }
}
