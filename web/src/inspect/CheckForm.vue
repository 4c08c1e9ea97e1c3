<script setup lang="ts">
import { unitsFor } from '@lathica/core/units/shown'
import type { Check } from '@lathica/core/part'
import { changeCheck, moveCheck, removeCheck } from '@lathica/core/edit'
import { figureWords, measureOfFigure, unitWords, type CheckState } from '@lathica/core/inspect'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

/** The fields of one row of the sheet. What is typed is kept even where it has no meaning. */
const props = defineProps<{ state: CheckState }>()
const parts = usePartStore()
const inspect = useInspectStore()

const check = computed(() => props.state.check)
const units = computed(() =>
  unitsFor(measureOfFigure(check.value.figure.kind)).map((u) => ({
    value: u.name,
    label: unitWords(u),
  })),
)
const LIMITS = [
  { value: 'about', label: 'about the target' },
  { value: 'least', label: 'at least' },
  { value: 'most', label: 'at most' },
] as const
const ownWords = computed(() =>
  parts.part ? figureWords(check.value.figure, parts.part, parts.state?.bodies ?? []) : '',
)
const owners = computed(() => [
  ...('other' in check.value.figure || check.value.figure.kind === 'capacity'
    ? []
    : [{ value: '', label: 'all bodies' }]),
  ...parts.bodies.map((b) => ({ value: b.id, label: b.name })),
])
const at = computed(() => parts.part?.checks.findIndex((c) => c.id === check.value.id) ?? -1)

function change(next: Partial<Omit<Check, 'id'>>): void {
  parts.run(changeCheck(check.value.id, next))
}
function text(field: 'name' | 'target' | 'above' | 'below', event: Event): void {
  const { value } = event.target as HTMLInputElement
  if (value !== check.value[field]) change({ [field]: value })
}
function height(event: Event): void {
  const { figure } = check.value
  if (figure.kind !== 'capacity') return
  change({ figure: { ...figure, height: (event.target as HTMLInputElement).value } })
}
function move(by: number): void {
  parts.run(moveCheck(check.value.id, at.value + by))
}
function remove(): void {
  const { id } = check.value
  inspect.rowId = undefined
  parts.run(removeCheck(id))
}
</script>

<template>
  <form class="check-form" @submit.prevent @keydown.esc.stop="inspect.rowId = undefined">
    <label class="wide">
      <span>Name</span>
      <input
        :value="check.name"
        :placeholder="ownWords"
        @change="text('name', $event)"
        @keydown.stop
      />
    </label>
    <label v-if="'body' in check.figure && parts.bodies.length > 1">
      <span>{{ 'other' in check.figure ? 'Moving' : 'Of' }}</span>
      <PlainSelect
        :id="`${check.id}-body`"
        :model-value="check.figure.body"
        :options="owners"
        @update:model-value="
          change({ figure: { ...check.figure, body: $event } as Check['figure'] })
        "
      />
    </label>
    <label v-if="'other' in check.figure">
      <span>In</span>
      <PlainSelect
        :id="`${check.id}-other`"
        :model-value="check.figure.other"
        :options="owners"
        @update:model-value="
          change({ figure: { ...check.figure, other: $event } as Check['figure'] })
        "
      />
    </label>
    <label v-if="check.figure.kind === 'capacity'">
      <span>Filled to</span>
      <input class="figure" :value="check.figure.height" placeholder="the brim" @change="height" />
    </label>
    <label>
      <span>Target</span>
      <input
        data-first
        class="figure"
        :value="check.target"
        :aria-invalid="state.problem !== undefined"
        @change="text('target', $event)"
      />
    </label>
    <label>
      <span>Unit</span>
      <PlainSelect
        :id="`${check.id}-unit`"
        :model-value="state.unit.name"
        :options="units"
        @update:model-value="change({ unit: $event })"
      />
    </label>
    <label>
      <span>Limit</span>
      <PlainSelect
        :id="`${check.id}-limit`"
        :model-value="check.limit"
        :options="LIMITS"
        @update:model-value="change({ limit: $event })"
      />
    </label>
    <template v-if="check.limit === 'about'">
      <label>
        <span>Above, +</span>
        <input
          class="figure"
          :value="check.above"
          placeholder="last digit"
          @change="text('above', $event)"
        />
      </label>
      <label>
        <span>Below, −</span>
        <input
          class="figure"
          :value="check.below"
          placeholder="last digit"
          @change="text('below', $event)"
        />
      </label>
    </template>
    <label class="wide every">
      <input
        type="checkbox"
        :checked="check.everyLimit === true"
        @change="change({ everyLimit: ($event.target as HTMLInputElement).checked })"
      />
      <span>At every limit: with each value at the end of its tolerance that counts</span>
    </label>
    <div class="buttons">
      <Button size="small" @click="inspect.rowId = undefined">Done</Button>
      <Button size="small" :disabled="at <= 0" @click="move(-1)">Up</Button>
      <Button size="small" :disabled="at + 1 >= (parts.part?.checks.length ?? 0)" @click="move(1)">
        Down
      </Button>
      <Button size="small" danger @click="remove">Delete row</Button>
    </div>
  </form>
</template>

<style scoped>
.check-form {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px 10px;
  padding: 8px 14px 12px 38px;
  border-bottom: 1px solid var(--rule);
  background: var(--halo-wash);
}

label {
  min-width: 0;
  color: var(--ink-soft);
  font-size: 12px;
}

.wide {
  grid-column: 1 / 4;
}

.every {
  display: flex;
  align-items: center;
  gap: 6px;
}

input:not([type='checkbox']) {
  width: 100%;
  height: 28px;
  padding: 0 7px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
  color: var(--ink);
}

input::placeholder {
  color: var(--pencil);
}

input[aria-invalid='true'] {
  border-color: var(--conflict);
}

.buttons {
  display: flex;
  grid-column: 1 / 4;
  gap: 6px;
}
</style>
