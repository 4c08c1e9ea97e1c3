<script setup lang="ts">
import { hasLimits, rowFigures, shownValue, unitOfRow } from '@lathica/core/plan'
import { Button, Switch } from 'ant-design-vue'
import { computed } from 'vue'
import { usePartStore } from '../store/part'
import { usePlanStore } from '../store/plan'
import { useSheetStore } from '../store/sheet'
import PlanChart from './PlanChart.vue'

/** The plan as a whole, and the row in hand: its figures, its chart, what it is measured with. */
defineProps<{ busy: boolean }>()
const emit = defineEmits<{ save: [id: 'plan' | 'report'] }>()
const parts = usePartStore()
const plan = usePlanStore()
const sheet = useSheetStore()

/** Rows that nothing can be judged by. */
const limitless = computed(
  () => plan.rows.filter((r) => r.measure !== 'seen' && !hasLimits(r)).length,
)

const figures = computed(() => {
  const { row } = plan
  const units = parts.part?.units
  if (!row || !units) return []
  const { count, bad, mean, least, greatest, deviation } = rowFigures(row, plan.plan)
  const told = (value: number | undefined): string =>
    value === undefined
      ? '–'
      : `${shownValue(row, Number(value.toPrecision(9)), units)} ${unitOfRow(row.measure, units)}`
  return [
    { words: 'measured', value: `${count} of ${plan.plan.pieces.length}` },
    { words: 'out of limits', value: String(bad) },
    ...(mean === undefined
      ? []
      : [
          { words: 'mean', value: told(mean) },
          { words: 'from, to', value: `${told(least).split(' ')[0] ?? ''} … ${told(greatest)}` },
          { words: 'deviation', value: told(deviation) },
        ]),
  ]
})

function choose(event: Event): void {
  const { row } = plan
  if (!row) return
  const words = (event.target as HTMLInputElement).value.trim()
  if (words !== row.instrument || words === '') plan.choose(row.id, words)
}
</script>

<template>
  <div class="sheet-panel">
    <section aria-label="Pieces">
      <h2>Pieces</h2>
      <p role="status">{{ plan.summary }}</p>
      <p v-if="plan.plan.pieces.length === 0" class="soft">
        Add a piece with + in the table, or paste a block from a spreadsheet into the first cell.
      </p>
      <p v-if="limitless > 0" class="told">
        {{ limitless }} {{ limitless === 1 ? 'row has' : 'rows have' }} no limits: choose general
        tolerances in Inspect, or write some behind the sizes.
      </p>
      <div class="row">
        <Button :disabled="!sheet.drawing || busy" @click="emit('save', 'report')"
          >Report PDF</Button
        >
        <Button :disabled="!sheet.drawing || busy" @click="emit('save', 'plan')">CSV</Button>
      </div>
      <div class="fields">
        <label for="plan-balloons">Numbers shown</label>
        <span>
          <Switch
            id="plan-balloons"
            size="small"
            :checked="sheet.setup.balloons"
            @change="plan.toggleBalloons()"
          />
        </span>
      </div>
      <Button
        size="small"
        :disabled="plan.plan.numbers.length === 0"
        title="Numbers all from the left end to the right; what was measured stays with its row"
        @click="plan.anew()"
      >
        Number anew
      </Button>
    </section>
    <section v-if="plan.row" aria-label="Row in hand" class="in-hand">
      <h2>{{ plan.row.number }} {{ plan.row.what }}</h2>
      <p class="figure written">{{ plan.row.written }}</p>
      <div class="fields">
        <label for="plan-instrument">Measured with</label>
        <input
          id="plan-instrument"
          :key="plan.row.id"
          :value="plan.row.instrument"
          :title="plan.row.isChosen ? 'Your own choice; empty it for what is proposed' : ''"
          @change="choose"
        />
        <template v-for="f in figures" :key="f.words">
          <span class="soft">{{ f.words }}</span>
          <span class="figure">{{ f.value }}</span>
        </template>
      </div>
    </section>
    <section aria-label="Chart">
      <h2>{{ plan.row ? `Values of ${plan.row.number}` : 'All rows' }}</h2>
      <PlanChart :row="plan.row" />
      <Button v-if="plan.row" size="small" type="link" @click="plan.picked = undefined">
        Show all rows
      </Button>
    </section>
  </div>
</template>

<style scoped src="./panel.css"></style>
