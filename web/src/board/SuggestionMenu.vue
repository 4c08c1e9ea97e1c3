<script setup lang="ts">
import { unitScale } from '@lathica/core/units'
import { evaluateFormula } from '@lathica/core/formula'
import { onClickOutside } from '@vueuse/core'
import { ref, useTemplateRef } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { SUGGESTION_KINDS, type SuggestionKind } from './snapping'

const board = useBoardStore()
const parts = usePartStore()
const menu = useTemplateRef<HTMLElement>('menu')
const wrong = ref('')
onClickOutside(menu, () => (board.suggestionsOpen = false))

const kinds = Object.entries(SUGGESTION_KINDS) as [SuggestionKind, string][]

function toggle(kind: SuggestionKind): void {
  const next = new Set(board.suggesting.kinds)
  if (!next.delete(kind)) next.add(kind)
  board.suggesting = { ...board.suggesting, kinds: next }
}

function spacing(): string {
  const scaled = board.suggesting.grid.minor / unitScale('length', parts.units)
  return String(Number(scaled.toPrecision(6)))
}

function setMinor(event: Event): void {
  const text = (event.target as HTMLInputElement).value
  const value = evaluateFormula(text, {
    want: 'length',
    units: parts.units,
    lookup: () => undefined,
  })
  if (!value.ok || value.value < 1e-3 || value.value > 1e4) {
    wrong.value = value.ok ? 'The spacing lies between 0.001 mm and 10 m.' : value.problem.message
    return
  }
  wrong.value = ''
  board.suggesting = { ...board.suggesting, grid: { ...board.suggesting.grid, minor: value.value } }
}

function setMajor(event: Event): void {
  const major = Number((event.target as HTMLInputElement).value)
  if (!Number.isInteger(major) || major < 2 || major > 100) {
    wrong.value = 'A heavier line comes every 2 to 100 lines.'
    return
  }
  wrong.value = ''
  board.suggesting = { ...board.suggesting, grid: { ...board.suggesting.grid, major } }
}
</script>

<template>
  <div
    ref="menu"
    class="menu"
    data-floats
    role="group"
    aria-label="Suggestions while drawing"
    @keydown.esc.stop="board.suggestionsOpen = false"
  >
    <strong>Suggest</strong>
    <label v-for="[kind, words] in kinds" :key="kind">
      <input type="checkbox" :checked="board.suggesting.kinds.has(kind)" @change="toggle(kind)" />
      {{ words }}
    </label>
    <div v-if="board.suggesting.kinds.has('grid')" class="grid">
      <label>
        every
        <input
          class="figure"
          :value="spacing()"
          aria-label="grid spacing"
          @change="setMinor"
          @keydown.stop
        />
        {{ parts.units.length }}
      </label>
      <label>
        heavier every
        <input
          class="figure"
          :value="board.suggesting.grid.major"
          aria-label="lines from one heavier line to the next"
          @change="setMajor"
          @keydown.stop
        />
        lines
      </label>
    </div>
    <p v-if="wrong" role="alert" class="wrong">{{ wrong }}</p>
    <p class="soft">Shift refuses them all while it is held.</p>
  </div>
</template>

<style scoped>
.menu {
  position: absolute;
  right: 8px;
  top: 34px;
  z-index: 4;
  width: 230px;
  padding: 8px 10px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--panel);
  font-size: 12px;
  box-shadow: 0 2px 10px rgb(30 42 50 / 18%);
}

label {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 24px;
}

.grid {
  padding-left: 20px;
}

.grid input {
  width: 56px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink);
  font-size: 12px;
}

.wrong {
  margin: 4px 0 0;
  color: var(--conflict);
}

.soft {
  margin: 6px 0 0;
  color: var(--ink-soft);
}

input[type='checkbox'] {
  accent-color: var(--accent);
}
</style>
