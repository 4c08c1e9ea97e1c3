<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import {
  formatAngle,
  formatLength,
  formatMass,
  significant,
  type Measure,
} from '@lathica/core/units'
import { usualUnit } from '@lathica/core/units/shown'
import { valuesOf, type NamedValue } from '@lathica/core/part'
import { removeValue, setValue } from '@lathica/core/edit'
import { tellValue } from '@lathica/core/inspect'
import { computed, ref, shallowRef } from 'vue'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

const parts = usePartStore()
const problem = shallowRef<Problem>()
const newName = ref('')
const newFormula = ref('')
const newMeasure = ref<Measure>('length')

const MEASURES: readonly { readonly value: Measure; readonly label: string }[] = [
  { value: 'length', label: 'length' },
  { value: 'angle', label: 'angle' },
  { value: 'number', label: 'number' },
]

const rows = computed(() => {
  const { part } = parts
  if (!part) return []
  const { table, problems } = valuesOf(part)
  return part.values.map((value) => {
    const result = table.get(value.name)
    return {
      value,
      shown: result?.ok ? show(value.measure, result.value) : '–',
      problem: problems.get(value.name),
    }
  })
})

function show(measure: Measure, value: number): string {
  const { units } = parts
  switch (measure) {
    case 'length':
      return `${formatLength(value, units)} ${units.length}`
    case 'angle':
      return formatAngle(value, units)
    case 'mass':
      return formatMass(value, units)
    case 'density':
      return `${significant(value * 1000, 4)} g/cm³`
    case 'number':
      return String(Number(value.toPrecision(10)))
    case 'area':
    case 'volume':
    case 'inertia':
      return tellValue(value, usualUnit(measure, units))
  }
}

function change(value: NamedValue, formula: string): void {
  if (formula === value.formula) return
  const result = parts.attempt(setValue({ ...value, formula }))
  problem.value = result.ok ? undefined : result.problem
}

function add(): void {
  const result = parts.attempt(
    setValue({ name: newName.value.trim(), measure: newMeasure.value, formula: newFormula.value }),
  )
  problem.value = result.ok ? undefined : result.problem
  if (!result.ok) return
  newName.value = ''
  newFormula.value = ''
}

function remove(name: string): void {
  problem.value = undefined
  parts.run(removeValue(name))
}

const text = (event: Event): string => (event.target as HTMLInputElement).value
</script>

<template>
  <h3>Named values</h3>
  <p v-if="rows.length === 0" class="soft hint">
    Names that every number field can read, as in <code>2*wall</code>.
  </p>
  <table v-if="rows.length > 0">
    <tbody>
      <tr v-for="row in rows" :key="row.value.name" :class="{ wrong: row.problem }">
        <th scope="row" class="figure">{{ row.value.name }}</th>
        <td>
          <input
            class="figure"
            :value="row.value.formula"
            :aria-label="`formula of ${row.value.name}`"
            :title="row.problem?.message"
            spellcheck="false"
            @change="change(row.value, text($event))"
            @keydown.enter="change(row.value, text($event))"
          />
        </td>
        <td class="figure shown">{{ row.shown }}</td>
        <td>
          <button
            type="button"
            class="plain"
            :aria-label="`Delete ${row.value.name}`"
            title="Delete"
            @click="remove(row.value.name)"
          >
            ×
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <form class="new" @submit.prevent="add">
    <input
      v-model="newName"
      class="figure"
      placeholder="name"
      aria-label="name of a new value"
      spellcheck="false"
      autocomplete="off"
    />
    <input
      v-model="newFormula"
      class="figure"
      placeholder="value"
      aria-label="formula of the new value"
      spellcheck="false"
      autocomplete="off"
    />
    <PlainSelect
      id="new-measure"
      v-model="newMeasure"
      aria-label="kind of the new value"
      :options="MEASURES"
    />
    <button type="submit" class="plain" :disabled="!newName || !newFormula">Add</button>
  </form>
  <p v-if="problem" class="wrong-note" role="alert">
    <strong>{{ problem.message }}</strong> {{ problem.mend }}
  </p>
</template>

<style scoped src="./table.css"></style>

<style scoped>
.hint {
  margin: 4px 0;
  font-size: 12px;
}

.new {
  display: grid;
  grid-template-columns: 1fr 1fr 84px auto;
  gap: 4px;
  margin-top: 6px;
}

.wrong-note {
  margin-top: 6px;
  color: var(--conflict);
  font-size: 12px;
}
.new :deep(select) {
  height: 24px;
  font-size: 12px;
}
</style>
