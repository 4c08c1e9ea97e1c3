import {
  LEAST_BLOCK_LINE,
  MOST_BLOCK_LINES,
  sumOf,
  WIDEST_BLOCK,
  type BlockCell,
  type TitleBlock,
} from '../part'

/** Rows or columns of a title block. */
export type BlockLines = 'rows' | 'columns'

/** New rows and columns have this, where there is room, in mm. */
const NEW: Readonly<Record<BlockLines, number>> = { rows: 8, columns: 30 }

/** Puts a row below the others, or a column to the right of them; the same block where there is room for none. */
export function addBlockLine(block: TitleBlock, which: BlockLines): TitleBlock {
  const lines = block[which]
  const left = which === 'columns' ? WIDEST_BLOCK - sumOf(lines) : NEW.rows
  const size = Math.min(NEW[which], left)
  if (lines.length >= MOST_BLOCK_LINES || size < LEAST_BLOCK_LINE) return block
  return { ...block, [which]: [...lines, size] }
}

/** Takes a row or a column off, with the cells that were in it alone; others are so much smaller. */
export function removeBlockLine(block: TitleBlock, which: BlockLines, at: number): TitleBlock {
  if (block[which].length < 2) return block
  const [start, long] =
    which === 'rows' ? (['row', 'down'] as const) : (['column', 'across'] as const)
  const cells = block.cells.flatMap((cell): BlockCell[] => {
    if (at < cell[start]) return [{ ...cell, [start]: cell[start] - 1 }]
    if (at >= cell[start] + cell[long]) return [cell]
    return cell[long] === 1 ? [] : [{ ...cell, [long]: cell[long] - 1 }]
  })
  return { ...block, [which]: block[which].filter((_, i) => i !== at), cells }
}

/** Makes a row or a column so wide, in mm. */
export const changeBlockLine = (
  block: TitleBlock,
  which: BlockLines,
  at: number,
  size: number,
): TitleBlock => ({ ...block, [which]: block[which].map((l, i) => (i === at ? size : l)) })

/** Puts an empty cell at a place of the grid. */
export const addBlockCell = (block: TitleBlock, row: number, column: number): TitleBlock => ({
  ...block,
  cells: [
    ...block.cells,
    { ...{ row, column, down: 1, across: 1, shows: 'words', label: '', words: '' }, letter: 2.5 },
  ],
})

export const changeBlockCell = (
  block: TitleBlock,
  at: number,
  change: Partial<BlockCell>,
): TitleBlock => ({
  ...block,
  cells: block.cells.map((c, i) => (i === at ? { ...c, ...change } : c)),
})

export const removeBlockCell = (block: TitleBlock, at: number): TitleBlock => ({
  ...block,
  cells: block.cells.filter((_, i) => i !== at),
})
