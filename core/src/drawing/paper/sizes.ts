import type { PaperName } from '../../part'

/** A sheet of paper, in mm. */
export interface Paper {
  readonly name: PaperName
  /** Trimmed, as it lies before the reader. */
  readonly width: number
  readonly height: number
  readonly upright: boolean
  /** From the left edge to the frame, wider for filing, and from the others. */
  readonly filing: number
  readonly margin: number
}

/** A box on paper in mm, from its lower left corner. */
export interface Room {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/**
 * Long and short side of trimmed sheets in mm: ISO 216:2007 series A, which ISO 5457:1999 Table 1 takes; and those of
 * 8.5 by 11 inches and its multiples, each of which is two of the one before.
 */
const SIDES: Readonly<Record<PaperName, readonly [number, number]>> = {
  A4: [297, 210],
  A3: [420, 297],
  A2: [594, 420],
  A1: [841, 594],
  A0: [1189, 841],
  'ANSI A': [11 * 25.4, 8.5 * 25.4],
  'ANSI B': [17 * 25.4, 11 * 25.4],
  'ANSI C': [22 * 25.4, 17 * 25.4],
  'ANSI D': [34 * 25.4, 22 * 25.4],
  'ANSI E': [44 * 25.4, 34 * 25.4],
}

/** Borders: 20 mm on the side of filing, 10 mm on the others (ISO 5457:1999, 4.2). */
const FILING = 20
const MARGIN = 10

export function paperOf(name: PaperName, upright: boolean): Paper {
  const [long, short] = SIDES[name]
  const [width, height] = upright ? [short, long] : [long, short]
  return { name, width, height, upright, filing: FILING, margin: MARGIN }
}

/** Inside the frame. */
export const spaceOf = ({ width, height, filing, margin }: Paper): Room => ({
  ...{ x: filing, y: margin, width: width - filing - margin, height: height - 2 * margin },
})
