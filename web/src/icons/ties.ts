import type { Constraint } from '@lathica/core'
import type { IconName } from './paths'

/** One sign for each kind of constraint, on the pad and beside the drawing alike. */
export const TIE_ICONS: Readonly<Record<Constraint['kind'], IconName>> = {
  axial: 'axial',
  radial: 'radial',
  parallel: 'parallel',
  perpendicular: 'perpendicular',
  equal: 'equal',
  coincident: 'meet',
  pointOn: 'onLine',
  fixed: 'fix',
  inLine: 'inLine',
  symmetric: 'symmetric',
  midpoint: 'midpoint',
  tangent: 'tangent',
  concentric: 'concentric',
  linked: 'link',
  repeat: 'repeat',
}
