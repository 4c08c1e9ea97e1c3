import type { Piece, Vec } from '../geometry'

/**
 * What stands on a sheet, in mm of paper: x to the right, y upwards from the lower left corner.
 */

/**
 * Lines of ISO 128-2:2020: outlines wide (01.2), dimensions, hatching and threads narrow (01.1), what is hidden in dashes
 * (02.1), centre lines in dashes and dots (04.1), treated faces likewise and wide (04.2).
 */
export type LineKind = 'wide' | 'narrow' | 'hidden' | 'centre' | 'treated'

/** Pieces drawn one after another, each run without lifting the pen. */
export interface Stroke {
  readonly kind: 'stroke'
  readonly line: LineKind
  readonly runs: readonly (readonly Piece[])[]
}

/** Pieces drawn each by itself. */
export const strokes = (line: LineKind, pieces: readonly Piece[]): Stroke => ({
  ...{ kind: 'stroke', line },
  runs: pieces.map((p) => [p]),
})

/** A filled outline: arrow heads, walls too thin to be hatched. */
export interface Fill {
  readonly kind: 'fill'
  readonly tone: 'ink' | 'paper'
  readonly loops: readonly (readonly Piece[])[]
}

/** One line of text. */
export interface Words {
  readonly kind: 'words'
  /** Where its base line begins. */
  readonly at: Vec
  /** Of its capitals, in mm. */
  readonly height: number
  /** Read from the right instead of from below. */
  readonly turned: boolean
  readonly text: string
}

export type Item = Stroke | Fill | Words

/** What belongs together: a view, a dimension, a note, the title block. */
export interface Group {
  readonly role: 'frame' | 'title' | 'view' | 'size' | 'note' | 'words'
  /** Of dimensions and notes. */
  readonly id: string
  /** What it says, in words to be read out. */
  readonly said: string
  readonly items: readonly Item[]
}
