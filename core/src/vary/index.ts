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
