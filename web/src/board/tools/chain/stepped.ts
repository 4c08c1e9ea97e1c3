import type { Problem } from '@lathica/core/result'
import { evaluateFormula } from '@lathica/core/formula'
import { line, type Piece } from '@lathica/core/geometry'
import { ORIGIN_ID } from '@lathica/core/sketch'
import { valuesOf } from '@lathica/core/part'
import { drawDraft, steppedShaft, type End, type ShaftStep } from '@lathica/core/edit'
import { problem } from '../entry'
import { snapAt } from '../snapping'
import type { Board, EntryField, Overlay, PointerAt, ToolState } from '../tool'

/** Lays a whole stepped shaft from typed pairs of diameter and length. */
export function stepped(
  board: Board,
  start: End = { at: { x: 0, y: 0 }, point: ORIGIN_ID },
): ToolState {
  const fields: EntryField[] = [{ label: 'diameter, length; diameter, length …', want: 'words' }]
  return {
    hint: 'Type diameter, length; Enter after each pair, once more lays the shaft. Click the axis to begin elsewhere.',
    cursor: 'crosshair',
    overlay: { mark: start.at },
    entry: {
      fields,
      open: true,
      take: ([text = '']) => {
        const steps = readPairs(board, text)
        if ('message' in steps) return steps
        const label = 'draw stepped shaft'
        const bad = board.attempt(drawDraft(label, board.sketch().id, steppedShaft(start, steps)))
        return bad ?? board.finish()
      },
      more: ([text = '']) => {
        const done = text.trim() === '' || text.trim().endsWith(';')
        return done || 'message' in readPairs(board, text) ? undefined : [`${text.trim()}; `]
      },
      preview: ([text = '']) => previewOf(board, start, text),
    },
    press: (at) => stepped(board, onAxis(board, at)),
    refresh: () => stepped(board, start),
  }
}

/** The place on the axis below or above the pointer. */
function onAxis(board: Board, at: PointerAt): End {
  const { end } = snapAt(board, at)
  if (end.point === ORIGIN_ID || Math.hypot(end.at.x, end.at.y) < 1e-9) {
    return { at: { x: 0, y: 0 }, point: ORIGIN_ID }
  }
  const place = { x: end.at.x, y: 0 }
  if (end.point !== undefined && Math.abs(end.at.y) < 1e-9) return { at: place, point: end.point }
  return { at: place, on: ['axis'] }
}

/** The steps of a text such as `20, 24; 28, 34`, or what is wrong with it. */
export function readPairs(board: Board, text: string): readonly ShaftStep[] | Problem {
  const part = board.part()
  const context = {
    want: 'length' as const,
    units: part.units,
    lookup: valuesOf(part).table.lookup,
  }
  const pairs = splitAtTop(text, ';').filter((pair) => pair.trim() !== '')
  if (pairs.length === 0) {
    return problem(
      'stepped.empty',
      'There is no pair yet.',
      'Type a diameter and a length: 20, 24.',
    )
  }
  const steps: ShaftStep[] = []
  for (const [i, pair] of pairs.entries()) {
    const [diameter, length, more] = splitAtTop(pair, ',').map((s) => s.trim())
    if (diameter === undefined || length === undefined || more !== undefined) {
      const message = `Step ${i + 1}, “${pair.trim()}”, is not a pair.`
      return problem('stepped.pair', message, 'Write a diameter, a comma and a length.')
    }
    const [d, l] = [evaluateFormula(diameter, context), evaluateFormula(length, context)]
    if (!d.ok) return inStep(i, d.problem)
    if (!l.ok) return inStep(i, l.problem)
    if (d.value <= 0 || l.value <= 0) {
      const mend = 'Both a diameter and a length are greater than zero.'
      return problem('stepped.zero', `Step ${i + 1} has no size.`, mend)
    }
    steps.push({
      diameter: { formula: diameter, value: d.value },
      length: { formula: length, value: l.value },
    })
  }
  return steps
}

function inStep(i: number, { code, message, mend }: Problem): Problem {
  return problem(code, `Step ${i + 1}: ${message}`, mend)
}

/** Splits a text at a mark that stands in no brackets. */
function splitAtTop(text: string, mark: string): string[] {
  const parts = ['']
  let depth = 0
  for (const c of text) {
    if (c === '(') depth++
    if (c === ')') depth--
    if (c === mark && depth === 0) parts.push('')
    else parts[parts.length - 1] += c
  }
  return parts
}

function previewOf(board: Board, start: End, text: string): Overlay | undefined {
  const steps = readPairs(board, text)
  if ('message' in steps) return undefined
  const rubber: Piece[] = []
  let here = { x: start.at.x, y: 0 }
  const go = (x: number, y: number): void => {
    if (x === here.x && y === here.y) return
    rubber.push(line(here, { x, y }))
    here = { x, y }
  }
  for (const { diameter, length } of steps) {
    go(here.x, diameter.value / 2)
    go(here.x + length.value, diameter.value / 2)
  }
  go(here.x, 0)
  return { rubber, mark: start.at }
}
