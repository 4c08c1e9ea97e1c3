import type { Piece, Vec } from '@lathica/core/geometry'
import type { Sketch } from '@lathica/core/sketch'
import type { Section } from '@lathica/core/section'
import type { BoardPicture } from '@lathica/core/part'
import type { SketchState } from '@lathica/core/route'
import type { Colours } from '../colours'
import type { Grid } from '../snapping'
import type { SizeDrawing } from '../sizes/layout'
import type { SectionRef } from '../refs'
import type { Cell } from '@lathica/core/notes'
import type { ShapeCheck } from '../../store/shapeCheck'
import type { ShownArea } from '../useAskedAreas'
import type { Overlay } from '../tools'
import type { View } from '../view'

/** A part of the pane in pixels: left, top, right and bottom. */
export type Patch = readonly [number, number, number, number]

/** What is said of a face or an end, where it stands. */
export interface NoteMark {
  /** The note that says it; what a step says of itself has none. */
  readonly id: string | undefined
  readonly at: Vec
  readonly out: Vec
  readonly cells: readonly Cell[]
  /** Where its plate was put by hand, in mm from where it stands. */
  readonly label: Vec | undefined
  /** Whether it cannot stand as it is. */
  readonly wrong: boolean
}

/** Where a thread runs on the half-section: along its root, and where it ends before its land does. */
export interface ThreadLine {
  readonly from: Vec
  readonly to: Vec
  readonly end: readonly [Vec, Vec] | undefined
}

/** A knurled land on the half-section: its ends, and the lines it is drawn by. */
export interface KnurlBand {
  readonly from: Vec
  readonly to: Vec
  readonly angles: readonly number[]
  readonly pitch: number
}

/** Everything one picture of the board shows. */

export interface Scene {
  readonly view: View
  readonly width: number
  readonly height: number
  /** The part's unit of length, in mm. */
  readonly unit: number
  readonly colours: Colours
  readonly sections: readonly Section[]
  /** The part seen from its end, instead of its half-section; x, y of both ends of every piece. */
  readonly end:
    | {
        readonly seen: readonly number[]
        readonly hidden: readonly number[]
        /** From where one looks, in words. */
        readonly from: string
      }
    | undefined
  /** Steps whose edges the sketch draws itself, in pencil or in ink. */
  readonly drawnSteps: ReadonlySet<string>
  /** True while later steps have changed what the sketch drew: it then stands back behind the part. */
  readonly receding: boolean
  readonly sketch: Sketch | undefined
  /** Other profiles that stand behind it. */
  readonly behind: readonly Sketch[]
  readonly sketchState: SketchState | undefined
  readonly sizes: readonly SizeDrawing[]
  readonly picks: ReadonlySet<string>
  readonly hover: string | undefined
  /** Ids that a disagreement or fault concerns. */
  readonly troubled: ReadonlySet<string>
  readonly overlay: Overlay | undefined
  /** What is looked at in the shape of the outline. */
  readonly check?: ShapeCheck | undefined
  /** What is drawn after. */
  readonly picture?: { readonly image: HTMLImageElement; readonly placed: BoardPicture } | undefined
  /** Faces and circular edges that the opened step refers to, and the one under the pointer. */
  readonly marked: readonly SectionRef[]
  readonly hoverRef: SectionRef | undefined
  /** Areas of the profile to choose from. */
  readonly areas: readonly ShownArea[]
  /** The sizes that the step in view has made. */
  readonly marks: readonly { readonly at: Vec; readonly words: string; readonly out: Vec }[]
  /** What is said of faces. */
  readonly notes: readonly NoteMark[]
  /** What holds for all faces and sizes of which nothing else is said. */
  readonly general: readonly (readonly Cell[])[]
  /** Faces that are hardened or coated. */
  readonly zones: readonly Piece[]
  readonly knurls: readonly KnurlBand[]
  /** Threads as they are drawn on the half-section. */
  readonly threads: readonly ThreadLine[]
  /** What the opened step adds or takes away, by itself. */
  readonly tool: Section | undefined
  /** The grid that places are rounded to, while it is switched on. */
  readonly grid: Grid | undefined
  /** Where alone it is painted anew; undefined for all of the pane. */
  readonly patch?: Patch
}
