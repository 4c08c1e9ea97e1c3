import type { SizeKinds } from '../kind'
import { angle } from './angle'
import { diameter } from './diameter'
import { axialDistance, distance, radialDistance } from './distance'
import { greatestAt, greatestDiameter, leastAt, leastDiameter, leastRadius } from './free'
import { gap } from './gap'
import { length } from './length'
import { arcLength, curveDiameter, radius } from './round'
import { span } from './span'

/** Every kind of size there is. */
export const SIZE_KINDS: SizeKinds = {
  length,
  axialDistance,
  radialDistance,
  distance,
  diameter,
  span,
  gap,
  radius,
  curveDiameter,
  arcLength,
  greatestDiameter,
  leastDiameter,
  greatestAt,
  leastAt,
  leastRadius,
  angle,
}
