<script setup lang="ts">
import { addChecks } from '@lathica/core/edit'
import {
  summaryOf,
  tellFailure,
  tellFigures,
  tellMeasured,
  tellTolerance,
  tellValue,
  unitWords,
  type CheckState,
} from '@lathica/core/inspect'
import { readSheet, writeSheet } from '@lathica/core/formats'
import { Download, Upload } from 'lucide-vue-next'
import { computed, nextTick, useTemplateRef } from 'vue'
import { saveFile } from '../dispatch/saveFile'
import { tell, tellProblem } from '../notices'
import { useInspectStore } from '../store/inspect'
import { useLimitsStore } from '../store/limits'
import { usePartStore } from '../store/part'
import IconButton from '../ui/IconButton.vue'
import AddCheck from './AddCheck.vue'
import CheckForm from './CheckForm.vue'

/** The inspection sheet: every row's figure beside what it should be. */
const parts = usePartStore()
const inspect = useInspectStore()
const chooser = useTemplateRef<HTMLInputElement>('chooser')

const limits = useLimitsStore()
const states = computed(() => limits.states)
const summary = computed(() => {
  const { passing, targets, failing, open } = summaryOf(states.value)
  if (targets === 0) return 'no targets yet'
  const rest = [failing > 0 ? `${failing} fail` : '', open > 0 ? `${open} open` : '']
  return [`${passing} of ${targets} pass`, ...rest.filter(Boolean)].join(', ')
})

const MARKS = { passes: '✓', fails: '✕', open: '?', told: '' } as const
const VERDICTS = { passes: 'passes', fails: 'fails', open: 'open', told: 'no target' } as const

const valueOf = (s: CheckState): string => (s.measured ? tellMeasured(s.measured, s.unit) : '–')
function differenceOf({ difference, unit }: CheckState): string {
  if (difference === undefined) return ''
  const told = tellFigures(difference, unit)
  return difference > 0 && told !== '0' ? `+${told}` : told
}
function targetOf(state: CheckState): string {
  const { target, unit, check } = state
  if (target === undefined) return check.target
  const tolerance = tellTolerance(state)
  const told = tellFigures(target, unit)
  const whole = check.limit === 'about' ? `${told} ${tolerance}` : `${tolerance} ${told}`
  return `${whole} ${unitWords(unit)}`
}
const spanOf = ({ span, unit }: CheckState): string =>
  span ? `${tellFigures(span.low, unit)} to ${tellValue(span.high, unit)}` : ''
function whyOf(state: CheckState): string {
  if (state.verdict === 'fails') return tellFailure(state)
  return state.problem ? `${state.problem.message} ${state.problem.mend}` : ''
}

async function toggle(id: string): Promise<void> {
  inspect.rowId = inspect.rowId === id ? undefined : id
  await nextTick()
  const form = document.querySelector<HTMLElement>('.check-form')
  form?.scrollIntoView({ block: 'nearest' })
  form?.querySelector('input')?.focus({ preventScroll: true })
}

async function importSheet(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  const { part } = parts
  if (!file || !part) return
  const read = readSheet(await file.text(), part)
  if (!read.ok) tellProblem(read.problem)
  else if (parts.run(addChecks(read.value))) {
    tell(read.value.length === 1 ? '1 row taken in.' : `${read.value.length} rows taken in.`)
  }
}
function exportSheet(): void {
  if (parts.state) saveFile(writeSheet(parts.state), `${parts.name} inspection.csv`, 'text/csv')
}
</script>

<template>
  <section class="sheet" aria-label="Inspection sheet">
    <header>
      <p class="summary" role="status">{{ summary }}</p>
      <AddCheck />
      <IconButton label="Take in a sheet from CSV" @click="chooser?.click()">
        <Upload :size="16" :stroke-width="1.5" />
      </IconButton>
      <IconButton label="Save the sheet as CSV" @click="exportSheet">
        <Download :size="16" :stroke-width="1.5" />
      </IconButton>
      <input
        ref="chooser"
        type="file"
        accept=".csv,text/csv"
        class="visually-hidden"
        tabindex="-1"
        aria-label="CSV file of a sheet"
        @change="importSheet"
      />
    </header>
    <p v-if="states.length === 0" class="none">
      The sheet is empty. Add a figure with its target, also before anything is drawn; or measure
      something and keep it.
    </p>
    <ol v-else>
      <li v-for="s in states" :key="s.check.id" :data-verdict="s.verdict">
        <button
          type="button"
          class="row"
          :aria-expanded="inspect.rowId === s.check.id"
          @click="toggle(s.check.id)"
        >
          <span class="mark" aria-hidden="true">{{ MARKS[s.verdict] }}</span>
          <span class="words">{{ s.words }}</span>
          <span class="value figure">{{ valueOf(s) }}</span>
          <span class="target figure">{{ targetOf(s) }}</span>
          <span class="difference figure">{{ differenceOf(s) }}</span>
          <span class="visually-hidden">{{ VERDICTS[s.verdict] }}</span>
          <span v-if="s.span" class="why figure">at every limit {{ spanOf(s) }}</span>
          <span v-if="whyOf(s)" class="why">{{ whyOf(s) }}</span>
        </button>
        <CheckForm v-if="inspect.rowId === s.check.id" :state="s" />
      </li>
    </ol>
  </section>
</template>

<style scoped>
.sheet {
  display: flex;
  flex-direction: column;
  min-height: 0;
}

header {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 6px 8px 6px 14px;
  border-bottom: 1px solid var(--rule);
}

.summary {
  flex: 1;
  color: var(--ink-soft);
  font-size: 12px;
}

.none {
  padding: 12px 14px;
  color: var(--ink-soft);
}

ol {
  flex: 1;
  min-height: 0;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}

.row {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) auto;
  gap: 0 8px;
  width: 100%;
  padding: 6px 14px 6px 8px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  text-align: left;
  cursor: pointer;
}

.row:hover {
  background: var(--paper);
}

.row[aria-expanded='true'] {
  background: var(--halo-wash);
}

.row:focus-visible {
  outline-offset: -2px;
}

.mark {
  grid-row: span 2;
  align-self: start;
  text-align: center;
  font-weight: 700;
  color: var(--ink-soft);
}

[data-verdict='passes'] .mark {
  color: var(--accent-deep);
}

[data-verdict='fails'] .mark,
[data-verdict='fails'] .difference,
[data-verdict='fails'] .why {
  color: var(--conflict);
}

[data-verdict='fails'] .words {
  font-weight: 600;
}

.value,
.difference {
  text-align: right;
  white-space: nowrap;
}

.target,
.difference {
  color: var(--ink-soft);
  font-size: 12px;
}

.why {
  grid-column: 2 / 4;
  font-size: 12px;
}
</style>
