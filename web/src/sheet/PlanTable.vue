<script setup lang="ts">
import { MOST_PIECES } from '@lathica/core/edit'
import { shownValue, unitOfRow, type PlanRow } from '@lathica/core/plan'
import { Plus, X } from 'lucide-vue-next'
import { nextTick, useTemplateRef, watch } from 'vue'
import { usePartStore } from '../store/part'
import { usePlanStore } from '../store/plan'
import IconButton from '../ui/IconButton.vue'

/** The rows of the inspection plan, and a column to type into for every piece. */
const parts = usePartStore()
const plan = usePlanStore()
const body = useTemplateRef<HTMLElement>('body')

const unit = (row: PlanRow): string => (parts.part ? unitOfRow(row.measure, parts.part.units) : '')
function told(row: PlanRow, value: number | undefined): string {
  return value === undefined || !parts.part ? '' : shownValue(row, value, parts.part.units)
}
function limits(row: PlanRow): string {
  const [lower, upper] = [told(row, row.lower), told(row, row.upper)]
  if (row.measure === 'seen') return 'good or bad'
  if (lower === '' && upper === '') return `${told(row, row.nominal)} ${unit(row)}`.trim()
  if (row.measure === 'number') return lower
  return row.lower === 0 && row.nominal === undefined
    ? `≤ ${upper} ${unit(row)}`
    : `${lower} … ${upper} ${unit(row)}`
}
function text(row: PlanRow, piece: string): string {
  const wrong = plan.wrongIn(row.id, piece)
  if (wrong) return wrong.text
  const value = plan.valueOf(row.id, piece)
  return value === undefined || !parts.part ? '' : shownValue(row, value, parts.part.units)
}
const why = (row: PlanRow, piece: string): string => {
  const problem = plan.wrongIn(row.id, piece)?.problem
  return problem ? `${problem.message} ${problem.mend}` : ''
}

/** The cell of a row and a piece, by their places in the table. */
const cellAt = (row: number, column: number): HTMLInputElement | null =>
  body.value?.querySelector(`input[data-cell="${row} ${column}"]`) ?? null

function go(row: number, column: number): void {
  const cell = cellAt(row, column)
  cell?.focus()
  cell?.select()
}

function onKey(event: KeyboardEvent, row: PlanRow, piece: string, i: number, j: number): void {
  const cell = event.target as HTMLInputElement
  if (event.key === 'Enter' || event.key === 'ArrowDown') go(i + 1, j)
  else if (event.key === 'ArrowUp') go(i - 1, j)
  else if (event.key === 'Escape') {
    plan.forget(row.id, piece)
    cell.value = text(row, piece)
    cell.select()
  } else return
  event.preventDefault()
}

function onPaste(event: ClipboardEvent, row: PlanRow, column: number): void {
  const block = event.clipboardData?.getData('text/plain') ?? ''
  // One cell is typed as any other text.
  if (!/[\t\n\r]/.test(block.trimEnd())) return
  event.preventDefault()
  plan.paste(row, column, block)
}

async function add(): Promise<void> {
  if (!plan.add()) return
  await nextTick()
  go(0, plan.plan.pieces.length - 1)
}

// A label picked on the sheet shows its row.
watch(
  () => plan.picked,
  async (id) => {
    await nextTick()
    if (id === undefined) return
    body.value?.querySelector(`tr[data-row="${CSS.escape(id)}"]`)?.scrollIntoView({
      block: 'nearest',
    })
  },
)
</script>

<template>
  <div class="plan-table">
    <table aria-label="Inspection plan">
      <thead>
        <tr>
          <th class="number">No.</th>
          <th>What</th>
          <th>Drawing</th>
          <th>Limits</th>
          <th>Instrument</th>
          <th>Field</th>
          <th v-for="(p, j) in plan.verdicts" :key="p.id" class="piece" :class="p.verdict">
            <span class="name">
              <input
                :aria-label="`Name of piece ${j + 1}`"
                :value="p.name"
                @change="plan.rename(p.id, ($event.target as HTMLInputElement).value.trim())"
              />
              <IconButton :label="`Take piece ${p.name} off`" @click="plan.remove(p.id)">
                <X :size="14" />
              </IconButton>
            </span>
            <span class="verdict">{{ p.verdict }}</span>
          </th>
          <th class="more">
            <IconButton
              label="Add a piece"
              :disabled="plan.plan.pieces.length >= MOST_PIECES"
              @click="add"
            >
              <Plus :size="14" />
            </IconButton>
          </th>
        </tr>
      </thead>
      <tbody ref="body">
        <tr
          v-for="(row, i) in plan.rows"
          :key="row.id"
          :data-row="row.id"
          :class="{ picked: plan.picked === row.id }"
          @click="plan.pick(row.id)"
        >
          <td class="number figure">{{ row.number }}</td>
          <td>{{ row.what }}</td>
          <td class="figure written" :title="row.written">{{ row.written }}</td>
          <td class="figure limits">{{ limits(row) }}</td>
          <td class="instrument" :title="row.instrument">{{ row.instrument }}</td>
          <td class="figure">{{ plan.fields.get(row.id) }}</td>
          <td
            v-for="(p, j) in plan.plan.pieces"
            :key="p.id"
            class="value"
            :class="plan.wrongIn(row.id, p.id) ? 'wrong' : plan.verdictOf(row, p.id)"
          >
            <input
              class="figure"
              :data-cell="`${i} ${j}`"
              :aria-label="`${row.number} ${row.what}, piece ${p.name}`"
              :aria-invalid="plan.wrongIn(row.id, p.id) !== undefined"
              :title="why(row, p.id)"
              :value="text(row, p.id)"
              @focus="plan.pick(row.id)"
              @change="plan.write(row, p.id, ($event.target as HTMLInputElement).value)"
              @keydown="onKey($event, row, p.id, i, j)"
              @paste="onPaste($event, row, j)"
            />
            <span v-if="plan.verdictOf(row, p.id) === 'bad'" class="mark" title="out of its limits">
              ✕
            </span>
          </td>
          <td />
        </tr>
      </tbody>
    </table>
    <p v-if="plan.rows.length === 0" class="empty">
      The drawing asks nothing yet: sizes and notes of the part come here by themselves.
    </p>
  </div>
</template>

<style scoped>
.plan-table {
  min-height: 0;
  overflow: auto;
  border-top: 1px solid var(--rule-strong);
  background: var(--panel);
}

table {
  border-collapse: separate;
  border-spacing: 0;
  min-width: 100%;
}

th {
  position: sticky;
  z-index: 1;
  top: 0;
  padding: 4px 6px;
  border-bottom: 1px solid var(--rule-strong);
  background: var(--panel);
  color: var(--ink-soft);
  font-size: 12px;
  font-weight: 600;
  text-align: left;
  vertical-align: bottom;
  white-space: nowrap;
}

td {
  padding: 2px 6px;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}

tbody tr {
  cursor: default;
}

tbody tr.picked td {
  background: var(--halo-wash);
}

.number {
  text-align: right;
}

.written,
.instrument {
  max-width: 132px;
  overflow: hidden;
  text-overflow: ellipsis;
}

.piece {
  padding: 2px 4px;
}

.name {
  display: flex;
  gap: 2px;
  align-items: center;
}

.name input {
  width: 42px;
  height: 24px;
  padding: 0 4px;
  border: 1px solid transparent;
  border-radius: 3px;
  background: transparent;
  color: var(--ink);
  font-weight: 600;
}

.name input:hover,
.name input:focus {
  border-color: var(--rule-strong);
}

.verdict {
  padding-left: 5px;
  font-weight: 400;
}

.good .verdict {
  color: var(--accent);
}

.bad .verdict {
  color: var(--conflict);
  font-weight: 600;
}

.more {
  width: 34px;
}

td.value {
  position: relative;
  width: 80px;
  padding: 1px 2px;
}

.value input {
  width: 76px;
  height: 24px;
  padding: 0 16px 0 4px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink);
  text-align: right;
}

.value.bad input {
  border-color: var(--conflict);
  background: var(--conflict-wash);
  color: var(--conflict);
}

.value.wrong input {
  border: 2px dashed var(--conflict);
}

.mark {
  position: absolute;
  top: 5px;
  left: 63px;
  color: var(--conflict);
  font-size: 12px;
  pointer-events: none;
}

.empty {
  margin: 18px;
  color: var(--ink-soft);
}
</style>
