import { fail, type Result } from '../result'

/** A title block of one’s own: a grid of cells in the lower right corner of each sheet. Lengths in mm of paper. */
export interface TitleBlock {
  /** What it is called where it is kept. */
  readonly name: string
  /** Heights of its rows, from above. */
  readonly rows: readonly number[]
  /** Widths of its columns, from the left. */
  readonly columns: readonly number[]
  readonly cells: readonly BlockCell[]
  readonly mark?: BlockMark
}

/** A cell over one or more rows and columns. */
export interface BlockCell {
  /** From 0, from above and from the left. */
  readonly row: number
  readonly column: number
  /** How many rows and columns it takes up. */
  readonly down: number
  readonly across: number
  readonly shows: BlockShows
  /** Written small in its corner; empty for none. */
  readonly label: string
  /** What it says where it shows words. */
  readonly words: string
  /** Height of its letters; less where they would not fit. */
  readonly letter: number
}

/** A field of the title block (ISO 7200:2004), and what the part says of itself. */
export const BLOCK_FIELDS = [
  ...(['owner', 'title', 'number', 'creator', 'approver', 'date', 'revision', 'status'] as const),
  ...(['type', 'scale', 'projection', 'sheet', 'paper', 'material', 'mass', 'general'] as const),
] as const
export type BlockField = (typeof BLOCK_FIELDS)[number]

/** `words` for what the cell says itself, `mark` for the drawn mark. */
export const BLOCK_SHOWS = [...BLOCK_FIELDS, 'words', 'mark'] as const
export type BlockShows = (typeof BLOCK_SHOWS)[number]

/** A mark as filled outlines and narrow lines, y downwards from its upper left corner, in units of its own. */
export interface BlockMark {
  readonly width: number
  readonly height: number
  readonly paths: readonly MarkPath[]
}

export interface MarkPath {
  /** Filled as ink or as paper, or drawn as a narrow line. */
  readonly tone: 'ink' | 'paper' | 'line'
  /** Path data of absolute moves, lines, cubics and closings only (SVG 2, 9.3). */
  readonly d: string
}

/** So many rows or columns a block has at most. */
export const MOST_BLOCK_LINES = 12
/** Rows and columns are no narrower, in mm. */
export const LEAST_BLOCK_LINE = 4
/** As wide as A4 has room for (ISO 7200:2004, 5.1), and no higher than this, in mm. */
export const WIDEST_BLOCK = 180
export const HIGHEST_BLOCK = 100
/** Longer path data than this makes a mark too heavy for every sheet, in characters. */
export const LONGEST_MARK = 60_000

/** What ISO 7200:2004 (Tables 1 to 3) has in every title block. */
export const NEEDED_FIELDS: readonly BlockField[] = [
  ...(['owner', 'number', 'date', 'sheet', 'title', 'approver', 'creator', 'type'] as const),
]

const cell = (
  [row, column, down, across]: readonly [number, number, number, number],
  shows: BlockField,
  label: string,
  letter = 2.5,
): BlockCell => ({ ...{ row, column, down, across, shows, label, letter }, words: '' })

/** What every sheet has where nothing else is wished. */
export const PLAIN_BLOCK: TitleBlock = {
  name: '',
  rows: [16, 8, 8, 8],
  columns: [31, 31, 36.5, 36.5, 22.5, 22.5],
  cells: [
    cell([0, 0, 1, 2], 'owner', 'owner', 3.5),
    cell([1, 0, 1, 1], 'creator', 'drawn by'),
    cell([1, 1, 1, 1], 'approver', 'approved by'),
    cell([2, 0, 1, 1], 'date', 'date of issue'),
    cell([2, 1, 1, 1], 'status', 'status'),
    cell([3, 0, 1, 2], 'type', 'document type'),
    cell([0, 2, 1, 2], 'title', 'title', 5),
    cell([1, 2, 1, 2], 'material', 'material'),
    cell([2, 2, 1, 2], 'general', 'general tolerances'),
    cell([3, 2, 1, 1], 'mass', 'mass'),
    cell([3, 3, 1, 1], 'scale', 'scale', 3.5),
    cell([0, 4, 1, 2], 'number', 'number', 3.5),
    cell([1, 4, 2, 2], 'projection', 'projection'),
    cell([3, 4, 1, 1], 'revision', 'revision'),
    cell([3, 5, 1, 1], 'sheet', 'sheet'),
  ],
}

export const sumOf = (lengths: readonly number[]): number => lengths.reduce((a, b) => a + b, 0)

/** Why a title block cannot be, if so. */
export function refuseBlock(block: TitleBlock): Result<never> | undefined {
  const { rows, columns, cells, mark } = block
  for (const [lines, what] of [[rows, 'rows'] as const, [columns, 'columns'] as const]) {
    if (lines.length < 1 || lines.length > MOST_BLOCK_LINES) {
      return fail(
        'block.lines',
        `A title block has 1 to ${MOST_BLOCK_LINES} ${what}.`,
        'Take some off.',
      )
    }
    if (lines.some((l) => !(l >= LEAST_BLOCK_LINE))) {
      return fail(
        'block.narrow',
        `One of the ${what} is too narrow to be read.`,
        `Make it at least ${LEAST_BLOCK_LINE} mm.`,
      )
    }
  }
  if (sumOf(columns) > WIDEST_BLOCK + 1e-9 || sumOf(rows) > HIGHEST_BLOCK + 1e-9) {
    return fail(
      'block.large',
      'This title block is larger than a sheet of A4 has room for.',
      `Make its columns ${WIDEST_BLOCK} mm together at most, and its rows ${HIGHEST_BLOCK} mm.`,
    )
  }
  const taken = new Set<string>()
  for (const c of cells) {
    if (
      c.down < 1 ||
      c.across < 1 ||
      c.row + c.down > rows.length ||
      c.column + c.across > columns.length
    ) {
      return fail(
        'block.outside',
        `“${c.label || c.shows}” goes beyond the block.`,
        'Let it take up fewer rows or columns.',
      )
    }
    for (const place of placesOf(c)) {
      if (taken.has(place)) {
        return fail(
          'block.overlap',
          `“${c.label || c.shows}” covers another cell.`,
          'Let it take up fewer rows or columns, or take the other one off.',
        )
      }
      taken.add(place)
    }
  }
  if (mark && sumOf(mark.paths.map((p) => p.d.length)) > LONGEST_MARK) {
    return fail('block.mark', 'This mark is too finely drawn.', 'Simplify its paths first.')
  }
  return undefined
}

/** The places of the grid that a cell takes up. */
export const placesOf = ({ row, column, down, across }: BlockCell): string[] =>
  Array.from(
    { length: down * across },
    (_, i) => `${row + Math.floor(i / across)}/${column + (i % across)}`,
  )
