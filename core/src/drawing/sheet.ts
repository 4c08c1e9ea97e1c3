import type { Vec } from '../geometry'
import type { DrawnPlace } from './asked/drawnPlace'
import type { Group } from './items'
import type { Moves } from './layout/marks'
import type { Scale } from './paper/scales'
import type { Paper } from './paper/sizes'

/** What is written on paper: everything in mm. */
export interface Page {
  readonly paper: Paper
  /** Width of outlines in mm. */
  readonly lines: number
  readonly groups: readonly Group[]
}

/** A sheet, ready to be written. */
export interface Drawing extends Page {
  readonly scale: Scale
  /** Where the label of each dimension and note stands, and the field of the grid it is in. */
  readonly labels: ReadonlyMap<string, SheetLabel>
  /** Where sizes can be drawn from on the view along the axis, in mm of paper. */
  readonly places: readonly DrawnPlace[]
  /** What the reader of it should know: sizes that found no room, views that are simplified. */
  readonly told: readonly string[]
}

export interface SheetLabel extends Moves {
  readonly at: Vec
  readonly field: string
  readonly said: string
  /** Values it shows, by the ids they have among toleranced values; none of notes and of what is in parentheses. */
  readonly shows: readonly string[]
  /** Whether it stands beside the title block, where it is not dragged. */
  readonly isFixed: boolean
  /** Its number in the inspection plan, where something is asked. */
  readonly number?: number
}
