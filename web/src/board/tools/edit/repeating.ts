import type { Problem } from '@lathica/core/result'
import { boundsOf, boxAround } from '@lathica/core/geometry'
import {
  ALONG_AXIS,
  ALONG_RADIUS,
  entityMap,
  entityName,
  lineEnds,
  lineOf,
  locator,
  piecesOf,
} from '@lathica/core/sketch'
import { MOST_COPIES, repeatItems, type RepeatPlan } from '@lathica/core/edit'
import { pickAt } from '../../pick'
import { problem, readFields } from '../entry'
import { withPicks } from './gathering'
import { piecesAfter } from './preview'
import type { Board, EntryField, ToolState } from '../tool'

export function repeating(board: Board): ToolState {
  return withPicks(board, 'repeat', (ids) => asking(board, ids, ALONG_AXIS))
}

/** Asks how often and at what pitch; a click on a line or on the axis gives the direction. */
function asking(board: Board, ids: readonly string[], along: string): ToolState {
  const sketch = board.sketch()
  const width = widthAlong(board, ids, along)
  const fields: EntryField[] = [
    { label: 'in all', want: 'number', text: '3' },
    { label: 'pitch', want: 'length', now: width },
  ]
  const planFor = (texts: readonly string[]): RepeatPlan | Problem => {
    const values = readFields(board, fields, texts)
    if (!values.ok) return values.problem
    const [count, pitch = width] = values.value
    if (count === undefined) {
      return problem('repeat.count', 'How many there are is missing.', `Type 2 to ${MOST_COPIES}.`)
    }
    const typed = texts[1]?.trim() ?? ''
    return { count, pitch, along, ...(typed === '' ? {} : { formula: typed }) }
  }
  const way =
    along === ALONG_AXIS
      ? 'along the axis'
      : along === ALONG_RADIUS
        ? 'square to the axis'
        : `along ${entityName(sketch, along)}`
  return {
    hint: `Type how many in all and the pitch; they go ${way}. Click a line to go along it, the axis for square to it.`,
    cursor: 'crosshair',
    entry: {
      fields,
      open: true,
      take: (texts) => {
        const plan = planFor(texts)
        if ('message' in plan) return plan
        const refused = board.attempt(repeatItems(board.sketch().id, ids, plan))
        if (refused) return refused
        board.setPicks([])
        return board.finish()
      },
      preview: (texts) => {
        const plan = planFor(texts)
        if ('message' in plan || plan.count > 40) return undefined
        return { rubber: piecesAfter(board, repeatItems(sketch.id, ids, plan)) }
      },
    },
    press(at) {
      const id = pickAt(board.sketch(), board.view(), at.px)
      if (id === 'axis') {
        return asking(board, ids, along === ALONG_AXIS ? ALONG_RADIUS : ALONG_AXIS)
      }
      const line = lineOf(board.sketch(), id)
      return asking(board, ids, line ? line.id : along)
    },
    refresh: () => board.finish(),
  }
}

/** How far what is picked reaches in a direction: the pitch at which copies touch. */
function widthAlong(board: Board, ids: readonly string[], along: string): number {
  const sketch = board.sketch()
  const locate = locator(sketch)
  const pieces = sketch.entities
    .filter((e) => ids.includes(e.id))
    .flatMap((e) => piecesOf(e, locate))
  const box = boxAround(pieces.flatMap((p) => Object.values(boundsOf(p))))
  if (!box) return 0
  if (along === ALONG_AXIS) return box.max.x - box.min.x
  if (along === ALONG_RADIUS) return box.max.y - box.min.y
  const [a, b] = lineEnds(entityMap(sketch), locate, along)
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1
  const places = pieces.flatMap((p) =>
    [p.from, p.to].map((v) => (v.x * (b.x - a.x) + v.y * (b.y - a.y)) / length),
  )
  return Math.max(...places) - Math.min(...places)
}
