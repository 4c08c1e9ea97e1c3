<script setup lang="ts">
import { setGeneral, setGeneralForm } from '@lathica/core/edit'
import {
  FORM_CLASSES,
  GENERAL_CLASSES,
  GENERAL_WORDS,
  type FormClass,
  type GeneralClass,
} from '@lathica/core/standards'
import { setTolerance, tolerancedIn, type Toleranced } from '@lathica/core/vary'
import { computed, ref } from 'vue'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'
import { limitsWords, nominalWords } from './tolerances'

/** Every value with a tolerance, and what holds for the others. */
const parts = usePartStore()

const CLASSES = [
  { value: 'none', label: 'none' },
  ...GENERAL_CLASSES.map((c) => ({ value: c, label: `ISO 2768-${c}, ${GENERAL_WORDS[c]}` })),
]
const general = computed({
  get: () => parts.history?.part.general ?? 'none',
  set: (value: string) =>
    void parts.run(setGeneral(value === 'none' ? undefined : (value as GeneralClass))),
})
const FORMS = [
  { value: 'none', label: 'none' },
  ...FORM_CLASSES.map((c) => ({ value: c, label: `ISO 2768-2 ${c}` })),
]
const form = computed({
  get: () => parts.history?.part.generalForm ?? 'none',
  set: (value: string) =>
    void parts.run(setGeneralForm(value === 'none' ? undefined : (value as FormClass))),
})
const all = computed(() => (parts.history?.part ? tolerancedIn(parts.history?.part) : []))
const problem = ref<{ readonly id: string; readonly text: string }>()

function write(of: Toleranced, event: Event): void {
  const { value } = event.target as HTMLInputElement
  if (value.trim() === (of.own ? of.written : '')) return
  const result = parts.attempt(setTolerance(of, value.trim()))
  problem.value = result.ok
    ? undefined
    : { id: of.id, text: `${result.problem.message} ${result.problem.mend}` }
}
</script>

<template>
  <h2>Values with tolerances</h2>
  <div class="fields">
    <label for="general-tolerances">All others</label>
    <PlainSelect id="general-tolerances" v-model="general" :options="CLASSES" />
    <label for="general-forms">Form, place</label>
    <PlainSelect id="general-forms" v-model="form" :options="FORMS" />
  </div>
  <p v-if="all.length === 0" class="hint">
    None yet: type one behind any value, as in 35 k6, 24 ±0.05 or 40 +0.1 0.
  </p>
  <table v-else aria-label="Values with tolerances">
    <tbody>
      <template v-for="t in all" :key="t.id">
        <tr>
          <th scope="row">{{ t.words }}</th>
          <td class="figure">{{ nominalWords(t, parts.units) }}</td>
          <td class="own">
            <input
              class="figure"
              :value="t.own ? t.written : ''"
              :placeholder="t.written"
              :aria-label="`tolerance of ${t.words}`"
              :aria-invalid="problem?.id === t.id"
              @change="write(t, $event)"
              @keydown.enter="($event.target as HTMLInputElement).blur()"
              @keydown.stop
            />
          </td>
          <td class="figure limits">{{ limitsWords(t, parts.units) }}</td>
        </tr>
        <tr v-if="t.follows.length > 0">
          <td colspan="4" class="hint" role="note">
            It follows {{ t.follows.join(', ') }}, which has a tolerance already: it is off by both.
          </td>
        </tr>
        <tr v-if="problem?.id === t.id">
          <td colspan="4" class="problem" role="alert">{{ problem.text }}</td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped src="./figures.css"></style>
<style scoped>
h2 {
  margin: 14px 0 6px;
  font-size: 13px;
}

.fields {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  align-items: center;
  gap: 6px 8px;
  margin-bottom: 6px;
}

.hint {
  color: var(--ink-soft);
}

.own {
  width: 104px;
  padding-left: 8px;
}

.own input {
  width: 96px;
  height: 24px;
  padding: 0 6px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--panel);
  color: var(--ink);
}

.limits {
  width: 128px;
  color: var(--ink-soft);
  white-space: nowrap;
}

.problem {
  padding: 4px 8px;
  background: var(--conflict-wash);
  text-align: left;
}
</style>
