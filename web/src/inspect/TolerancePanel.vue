<script setup lang="ts">
import { adviceFor, setTolerance, tolerancedIn, type Contribution } from '@lathica/core/vary'
import { usualUnit } from '@lathica/core/units/shown'
import { evaluate } from '@lathica/core/route'
import { checkStates, tellFigures, tellValue, unitWords } from '@lathica/core/inspect'
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { tell } from '../notices'
import { useTyped } from '../route/steps/typed'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'
import FitPanel from './FitPanel.vue'
import LimitView from './LimitView.vue'
import TolerancedList from './TolerancedList.vue'
import TrialsPane from './TrialsPane.vue'
import { limitsWords, narrowed } from './tolerances'
import { useVaried } from './useVaried'

/** How far a figure can be off: through which values, in the worst case and as parts scatter. */
const parts = usePartStore()
const inspect = useInspectStore()
const { read } = useTyped()

const { choices, choice, chosen, variation, problem, isBusy, done, unit } = useVaried()

/** Two picks may be a land in a bore. */
const pair = computed(() => {
  const [a, b, ...more] = inspect.picks
  return a && b && more.length === 0 ? ([a, b] as const) : undefined
})

const anyTolerance = computed(
  () => parts.history !== undefined && tolerancedIn(parts.history.part).length > 0,
)

const told = (value: number): string => (unit.value ? tellValue(value, unit.value) : '')
const figures = (value: number): string => (unit.value ? tellFigures(value, unit.value) : '')

/** What is wanted: as it was typed, or as the sheet has it. */
const least = ref('')
const most = ref('')
const asked = computed(() => {
  const part = parts.history?.part
  const row = choice.value?.value.startsWith('row/') ? choice.value.value.slice(4) : undefined
  const state =
    part && row ? checkStates(evaluate(part)).find((s) => s.check.id === row) : undefined
  if (!state || state.target === undefined) return undefined
  const { target, above, below, check } = state
  if (check.limit === 'least') return { low: target, high: Infinity }
  if (check.limit === 'most') return { low: -Infinity, high: target }
  return { low: target - below, high: target + above }
})
const measure = computed(() => unit.value?.measure ?? 'length')
function limit(text: string, otherwise: number | undefined, open: number): number | undefined {
  if (text.trim() === '') return otherwise ?? open
  const found = read(text, measure.value)
  return found.ok ? found.value : undefined
}
const span = computed(() => {
  const low = limit(least.value, asked.value?.low, -Infinity)
  const high = limit(most.value, asked.value?.high, Infinity)
  return low === undefined || high === undefined ? undefined : { low, high }
})
/** What is wrong with a limit that was typed. */
const unread = computed(() => {
  for (const text of [least.value, most.value]) {
    const found = text.trim() === '' ? undefined : read(text, measure.value)
    if (found && !found.ok) return found.problem
  }
  return undefined
})
const isReversed = computed(() => span.value !== undefined && span.value.low > span.value.high)
const isOpen = computed(
  () => !span.value || (span.value.low === -Infinity && span.value.high === Infinity),
)
const advice = computed(() =>
  variation.value && span.value && !isOpen.value && !isReversed.value
    ? adviceFor(variation.value, span.value)
    : undefined,
)
const tighter = computed(() =>
  advice.value?.kind === 'tighten'
    ? narrowed(advice.value.of, advice.value.width, parts.units)
    : '',
)
function tighten(): void {
  if (advice.value?.kind !== 'tighten') return
  const { of } = advice.value
  const written = tighter.value
  if (parts.run(setTolerance(of, written))) tell(`${of.words} is now ${written}.`)
}

const SHOWN = 8
const shownAll = ref(false)
const rows = computed(() => {
  const all = variation.value?.contributions ?? []
  return shownAll.value ? all : all.slice(0, SHOWN)
})
const percent = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`
/** In the figure's unit by the value's own. */
function rateWords({ rate, of }: Contribution): string {
  const told = (rate * usualUnit(of.measure, parts.units).size) / (unit.value?.size ?? 1)
  return `${told < 0 ? '−' : ''}${Number(Math.abs(told).toPrecision(3))}`
}
</script>

<template>
  <section class="tolerances" aria-label="Tolerances">
    <div v-if="choices.length > 0" class="fields">
      <label for="vary-figure">What varies</label>
      <PlainSelect id="vary-figure" v-model="chosen" :options="choices" />
    </div>
    <p v-else class="hint">
      Click two faces to see what their distance varies by, or one for its diameter; rows of the
      sheet can be chosen too.
    </p>
    <p v-if="isBusy" class="hint" role="status">
      Working it out<template v-if="done > 0">: {{ percent(done) }}</template> …
    </p>
    <p v-if="problem" class="problem" role="alert">
      <strong>{{ problem.message }}</strong> {{ problem.mend }}
    </p>
    <template v-if="variation && !problem">
      <div class="fields wanted">
        <label for="vary-least">Wanted from</label>
        <span class="pair">
          <input
            id="vary-least"
            v-model="least"
            class="figure"
            :placeholder="asked && Number.isFinite(asked.low) ? figures(asked.low) : 'any'"
            @keydown.stop
          />
          <label for="vary-most">to</label>
          <input
            id="vary-most"
            v-model="most"
            class="figure"
            :placeholder="asked && Number.isFinite(asked.high) ? figures(asked.high) : 'any'"
            @keydown.stop
          />
          <span v-if="unit" class="soft">{{ unitWords(unit) }}</span>
        </span>
      </div>
      <table aria-label="How far it can be off" class="spans">
        <thead>
          <tr>
            <td />
            <th scope="col">least</th>
            <th scope="col">greatest</th>
          </tr>
        </thead>
        <tbody class="figure">
          <tr>
            <th scope="row">as drawn</th>
            <td colspan="2" class="middle">{{ told(variation.nominal) }}</td>
          </tr>
          <tr data-span="worst">
            <th scope="row" title="Every value at the limit that counts">worst case</th>
            <td :class="{ out: span && variation.worst.low < span.low - 1e-9 }">
              {{ told(variation.worst.low) }}
            </td>
            <td :class="{ out: span && variation.worst.high > span.high + 1e-9 }">
              {{ told(variation.worst.high) }}
            </td>
          </tr>
          <tr data-span="root">
            <th scope="row" title="The root of the sum of squares about the middle">
              root of squares
            </th>
            <td :class="{ out: span && variation.root.low < span.low - 1e-9 }">
              {{ told(variation.root.low) }}
            </td>
            <td :class="{ out: span && variation.root.high > span.high + 1e-9 }">
              {{ told(variation.root.high) }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="unread" class="problem" role="alert">
        <strong>{{ unread.message }}</strong> {{ unread.mend }}
      </p>
      <p v-else-if="isReversed" class="problem" role="alert">
        <strong>The least lies above the greatest.</strong> Type them the other way round.
      </p>
      <p v-else-if="advice?.kind === 'held'" class="good" role="status">
        ✓ Holds in the worst case.
      </p>
      <p v-else-if="advice?.kind === 'several'" class="bad" role="status">
        ✕ Missed by {{ told(advice.excess) }} in the worst case. No single tolerance is enough:
        tighten the first ones below.
      </p>
      <p v-else-if="advice?.kind === 'moved'" class="bad" role="status">
        ✕ The middle of what it comes to lies outside: change a nominal value first.
      </p>
      <div v-else-if="advice?.kind === 'tighten'" class="bad" role="status">
        ✕ Missed in the worst case. Tighten {{ advice.of.words }} from
        {{ limitsWords(advice.of, parts.units) }} to {{ tighter }}.
        <Button size="small" @click="tighten">Tighten</Button>
      </div>
      <p v-if="rows.length === 0" class="hint">No value with a tolerance changes it.</p>
      <table v-else aria-label="What it varies by" class="shares">
        <thead>
          <tr>
            <th scope="col">through</th>
            <th scope="col" class="end">tolerance</th>
            <th scope="col" class="end" title="By how much it changes when the value does by 1">
              rate
            </th>
            <th scope="col" class="end">share</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in rows" :key="c.of.id">
            <th scope="row">{{ c.of.words }}</th>
            <td class="figure" :title="c.of.own ? c.of.written : `general: ${c.of.written}`">
              {{ limitsWords(c.of, parts.units) }}
            </td>
            <td class="figure">{{ rateWords(c) }}</td>
            <td class="figure share">
              <span class="bar" :style="{ width: `${100 * c.share}%` }" />
              <span>{{ percent(c.share) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <button
        v-if="variation.contributions.length > SHOWN"
        type="button"
        class="plain more"
        @click="shownAll = !shownAll"
      >
        {{ shownAll ? 'Only the first' : `All ${variation.contributions.length}` }}
      </button>
      <p class="soft small">
        {{
          variation.exact
            ? 'Rates from the equations of the profile.'
            : 'Rates from small changes to the whole part.'
        }}
      </p>
      <TrialsPane v-if="unit" :figure="variation.figure" :unit="unit" :span="span" />
    </template>
    <LimitView v-if="anyTolerance" :variation="problem ? undefined : variation" />
    <FitPanel v-if="pair" :a="pair[0]" :b="pair[1]" />
    <TolerancedList />
  </section>
</template>

<style scoped src="./figures.css"></style>
<style scoped>
.tolerances {
  min-height: 0;
  padding: 10px 14px;
  overflow: auto;
}

.fields {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  align-items: center;
  gap: 6px 8px;
}

.wanted {
  margin: 8px 0;
}

.pair {
  display: flex;
  align-items: center;
  gap: 6px;
}

.pair input {
  width: 84px;
  height: 26px;
  padding: 0 6px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--panel);
  color: var(--ink);
}

.hint,
.soft {
  color: var(--ink-soft);
}

.small {
  margin: 4px 0 8px;
  font-size: 12px;
}

thead th,
thead td {
  color: var(--ink-soft);
  font-size: 12px;
}

.spans th[scope='col'],
.end {
  text-align: right;
}

.middle {
  text-align: center;
}

.out {
  color: var(--conflict);
  font-weight: 600;
}

.good,
.bad,
.problem {
  margin: 8px 0;
  padding: 6px 8px;
  border-radius: 3px;
}

.good {
  background: var(--halo-wash);
}

.bad,
.problem {
  background: var(--conflict-wash);
}

.shares td,
.shares th {
  padding: 3px 0 3px 8px;
}

.shares th:first-child {
  padding-left: 0;
}

.share {
  position: relative;
  width: 86px;
}

.share span {
  position: relative;
}

.share .bar {
  position: absolute;
  top: 4px;
  right: 0;
  bottom: 4px;
  border-radius: 2px;
  background: var(--halo-wash);
}

.more {
  padding: 4px 0;
  color: var(--accent-deep);
  font-weight: 600;
}
</style>
