export { setTolerance, tolerancedIn, withValuesOff, type Toleranced } from './toleranced'
export {
  adviceFor,
  trialsOf,
  variationOf,
  type Advice,
  type Contribution,
  type Scatter,
  type Span,
  type Trials,
  type Variation,
} from './variation'
export { spanOf, spansOf } from './spans'
export {
  BEARING_SEATS,
  FIT_ADVICE,
  FIT_WORDS,
  fitOf,
  fitWith,
  setFit,
  type Fit,
  type FitAdvice,
  type FitSide,
} from './fit'
