export * from './report'
export {
  STOCK_ALLOWANCE,
  isPending,
  massProperties,
  materialOf,
  stockFor,
  type MassProperties,
  type Stock,
} from './mass'
export { lengthwise, ringsAt, stationsAlong, type Station } from './along'
export { stationsOfPlan } from './cutStations'
export { stationsOfSolid, type SlicedStation } from './sliced'
export {
  capacityAt,
  capacityCurve,
  cavityIn,
  cavityOf,
  filledRoom,
  heightFor,
  type Cavity,
} from './capacity'
export { clearanceBetween, type Clearance } from './clearance'
export { leastWall } from './wall'
export { measurePicks, pickWords, pickedIn, type Measured, type Picked } from './picks'
export { figuresOf } from './solidPicks'
export {
  FIGURE_KINDS,
  asksOf,
  figureValue,
  figureWord,
  figureWords,
  measureOfFigure,
  unitOfFigure,
} from './figures'
export {
  asksOfChecks,
  checkState,
  checkStates,
  checkStatesAt,
  type Spans,
  summaryOf,
  type CheckState,
  type SheetSummary,
  type Verdict,
} from './sheet'
export { tellFailure, tellFigures, tellMeasured, tellTolerance, tellValue, unitWords } from './tell'
export { summarise, type PartSummary } from './summary'
export { curvatureComb, inflectionsOf, jumpsOf, type Joint, type Told } from './shape/curvature'
export { thicknessAlong, thinnest, type Thickness } from './shape/thickness'
export { drawAngles, type DrawVerdict, type Drawn } from './shape/draw'
