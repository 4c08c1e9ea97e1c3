import { formulas } from './formulas'
import type { Kind } from './kind'
import { booleans } from './sections/booleans'
import { hostile } from './sections/hostile'
import { layers } from './sections/layers'
import { routes } from './sections/routes'
import { contradictions, sketchesFar, sketchesFarther, sketchesNear } from './sketches/kinds'

/** All kinds of trials there are; what each makes, only it reads. */
export const KINDS = [
  booleans,
  layers,
  routes,
  hostile,
  sketchesNear,
  sketchesFar,
  sketchesFarther,
  contradictions,
  formulas,
] as unknown as readonly Kind<unknown>[]
