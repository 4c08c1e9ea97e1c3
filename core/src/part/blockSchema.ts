import { number, string } from 'yup'
import { count, exactly, list, optional, record, text } from './fields'
import { BLOCK_SHOWS, LONGEST_MARK, refuseBlock, type TitleBlock } from './titleBlock'

/** A length of something that is there, in mm. */
export const extent = number().strict().required().moreThan(0).max(1e6)

const line = string().strict().defined().max(200)

/** Absolute path data of moves, lines, cubics and closings: nothing else is ever kept of a mark. */
const pathData = string()
  .strict()
  .required()
  .max(LONGEST_MARK)
  .matches(/^M[MLCZ\d .-]*$/)

/** What a title block is made of, whether or not it can be one. */
export const titleBlockShape = record({
  name: text,
  rows: list(extent),
  columns: list(extent),
  cells: list(
    record({
      ...{ row: count, column: count, down: count, across: count },
      ...{ shows: exactly(...BLOCK_SHOWS), label: line, words: line, letter: extent },
    }),
  ),
  mark: optional(
    record({
      ...{ width: extent, height: extent },
      paths: list(record({ tone: exactly('ink', 'paper', 'line'), d: pathData })),
    }),
  ),
})

/** A title block of one’s own. */
export const titleBlock = titleBlockShape.test(
  'sound',
  'it is no title block',
  (made) => !refuseBlock(made as unknown as TitleBlock),
)
