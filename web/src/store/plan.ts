import { drawingOf, drawSheet, numberedIds, numbersAnew } from '@lathica/core/drawing'
import {
  addPieces,
  changeSheet,
  chooseInstrument,
  measure,
  measureBlock,
  numberAnew,
  removePiece,
  renamePiece,
} from '@lathica/core/edit'
import { NO_PLAN, type MeasuredValue } from '@lathica/core/part'
import {
  fieldOf,
  judged,
  pieceVerdict,
  planRows,
  readBlock,
  readMeasured,
  valuesOfRow,
  type PlanRow,
  type Verdict,
} from '@lathica/core/plan'
import type { Problem } from '@lathica/core/result'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { tell, tellProblem } from '../notices'
import { usePartStore } from './part'
import { useSheetStore } from './sheet'

/** The inspection plan of the part in hand: what is asked, and what was measured of which piece. */
export const usePlanStore = defineStore('plan', () => {
  const parts = usePartStore()
  const sheet = useSheetStore()

  const rows = computed((): readonly PlanRow[] => (parts.state ? planRows(parts.state) : []))
  const plan = computed(() => (parts.part && drawingOf(parts.part).plan) ?? NO_PLAN)
  /** What is asked now, in the order of its numbers. */
  const numbers = computed(() => (parts.state ? numberedIds(parts.state) : []))
  const valueOf = (row: string, piece: string): MeasuredValue['value'] | undefined =>
    valuesOfRow(plan.value, row).get(piece)
  const verdictOf = (row: PlanRow, piece: string): Verdict => judged(row, valueOf(row.id, piece))

  /** The sheets as far as they are looked at: for the fields of the grid. */
  const fields = computed((): ReadonlyMap<string, string> => {
    const { state } = parts
    if (!state || !sheet.isOpen) return new Map()
    const drawings = sheet.all.sheets.map((_, i) =>
      i === sheet.index ? sheet.drawing : drawSheet(state, sheet.seen, i),
    )
    return new Map(rows.value.map((r) => [r.id, fieldOf(r, drawings)]))
  })

  /** The row in hand. */
  const picked = ref<string>()
  const row = computed(() => rows.value.find((r) => r.id === picked.value))

  function pick(id: string | undefined): void {
    picked.value = id
    const found = rows.value.find((r) => r.id === id)
    if (!found) return
    const own = sheet.all.sheets[found.sheet]
    if (own) sheet.show(own.id)
    sheet.picked = found.label
  }

  /** What was typed that cannot be read: by row and piece, with what is wrong. */
  const wrong = ref(new Map<string, { readonly text: string; readonly problem: Problem }>())
  const cellKey = (rowId: string, piece: string): string => JSON.stringify([rowId, piece])
  const wrongIn = (rowId: string, piece: string) => wrong.value.get(cellKey(rowId, piece))

  /** Takes what was typed for a row on one piece. What cannot be read stays in its cell, and is told. */
  function write(of: PlanRow, piece: string, text: string): void {
    const { part } = parts
    if (!part) return
    const key = cellKey(of.id, piece)
    const read = readMeasured(of, text, part.units)
    if (!read.ok) {
      wrong.value.set(key, { text, problem: read.problem })
      return
    }
    wrong.value.delete(key)
    if (read.value === valueOf(of.id, piece)) return
    parts.run(measure(numbers.value, [{ row: of.id, piece, value: read.value }]))
  }

  // Ids are those of the part in hand.
  watch(
    () => parts.id,
    () => {
      picked.value = undefined
      wrong.value.clear()
    },
  )

  /** Lets go of what was typed and cannot be read. */
  const forget = (rowId: string, piece: string): void =>
    void wrong.value.delete(cellKey(rowId, piece))

  /** Takes a block from a spreadsheet, from a cell on. */
  function paste(of: PlanRow, column: number, text: string): boolean {
    const { part } = parts
    if (!part) return false
    const at = rows.value.findIndex((r) => r.id === of.id)
    const read = readBlock(rows.value, at, text, part.units)
    if (!read.ok) {
      tellProblem(read.problem)
      return false
    }
    const { values: found, columns } = read.value
    if (!parts.run(measureBlock(numbers.value, found, column, columns))) return false
    tell(`${found.length} values taken.`)
    return true
  }

  const add = (count = 1): boolean => parts.run(addPieces(numbers.value, count))
  const rename = (id: string, name: string): boolean => parts.run(renamePiece(id, name))
  const remove = (id: string): boolean => parts.run(removePiece(id))
  const choose = (id: string, words: string): boolean =>
    parts.run(chooseInstrument(numbers.value, id, words))
  const anew = (): boolean =>
    parts.state !== undefined && parts.run(numberAnew(numbersAnew(parts.state)))

  /** Shows the numbers on the sheet in hand, or takes them off. */
  const toggleBalloons = (): boolean =>
    parts.run(changeSheet(sheet.setup.id, { balloons: !sheet.setup.balloons }))

  const verdicts = computed(() =>
    plan.value.pieces.map((p) => ({ ...p, verdict: pieceVerdict(rows.value, plan.value, p.id) })),
  )
  const summary = computed(() => {
    const count = (of: Verdict): number => verdicts.value.filter((v) => v.verdict === of).length
    const n = verdicts.value.length
    if (n === 0) return 'no piece yet'
    return `${n} ${n === 1 ? 'piece' : 'pieces'}: ${count('good')} good, ${count('bad')} bad, ${count('open')} open`
  })

  return {
    ...{ rows, plan, fields, picked, row, pick, valueOf, verdictOf, wrongIn, write, forget, paste },
    ...{ add, rename, remove, choose, anew, toggleBalloons, verdicts, summary },
  }
})
