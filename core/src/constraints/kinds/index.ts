import type { ConstraintKinds } from '../kind'
import { coincident } from './coincident'
import { concentric } from './concentric'
import { curvature } from './curvature'
import { parallel, perpendicular } from './direction'
import { equal } from './equal'
import { fixed } from './fixed'
import { inLine } from './inLine'
import { linked } from './linked'
import { midpoint } from './midpoint'
import { pointOn } from './pointOn'
import { repeat } from './repeat'
import { axial, radial } from './straight'
import { symmetric } from './symmetric'
import { tangent } from './tangent'

/** Every kind of constraint there is. */
export const CONSTRAINT_KINDS: ConstraintKinds = {
  axial,
  radial,
  coincident,
  pointOn,
  fixed,
  linked,
  inLine,
  parallel,
  perpendicular,
  tangent,
  curvature,
  concentric,
  equal,
  midpoint,
  symmetric,
  repeat,
}
