import { formulas } from './formulas'
import type { Kind } from './kind'
import { booleans } from './sections/booleans'
import { curves } from './sections/curves'
import { finishes } from './sections/finishes'
import { hostile } from './sections/hostile'
import { layers } from './sections/layers'
import { routes } from './sections/routes'
import { solidSteps } from './solids/steps'
import {
  contradictions,
  degenerate,
  sketchesFar,
  sketchesFarther,
  sketchesNear,
} from './sketches/kinds'

/** All kinds of trials there are; what each makes, only it reads. */
export const KINDS = [
  booleans,
  layers,
  curves,
  routes,
  finishes,
  hostile,
  solidSteps,
  sketchesNear,
  sketchesFar,
  sketchesFarther,
  contradictions,
  degenerate,
  formulas,
] as unknown as readonly Kind<unknown>[]
