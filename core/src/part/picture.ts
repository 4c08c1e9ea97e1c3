interface Place {
  readonly x: number
  readonly y: number
}

/**
 * A picture behind the board, to draw after. It lies in the half-section: a pixel of it stands at `at` and as many times
 * `across` and `down` from there as it is columns and rows from the upper left.
 */
export interface BoardPicture {
  /** A data URL (RFC 2397) of a PNG, JPEG or WebP image. */
  readonly data: string
  /** In pixels. */
  readonly width: number
  readonly height: number
  /** Where its upper left corner is, in mm. */
  readonly at: Place
  /** From one column to the next, and from one row to the next, in mm. */
  readonly across: Place
  readonly down: Place
  /** How much of it is seen, from 0 to 1. */
  readonly strength: number
  readonly shown: boolean
}

/** So long a data URL is at most, in characters: it is stored with every save. */
export const LONGEST_PICTURE = 400_000
