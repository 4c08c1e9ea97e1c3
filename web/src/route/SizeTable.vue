<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import { formatAngle, formatLength } from '@lathica/core/units'
import type { Size } from '@lathica/core/sketch'
import { describeItem, signOf } from '@lathica/core/constraints'
import { changeSize, setReference } from '@lathica/core/edit'
import { computed, ref, shallowRef } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** Every size of the profile, its formula editable in place. */
const parts = usePartStore()
const board = useBoardStore()
const problem = shallowRef<Problem>()
const open = ref(false)

const count = computed(() => board.sketch.sizes.length)
const rows = computed(() => {
  if (!open.value) return []
  const { sketch, sketchState } = board
  return sketch.sizes.map((size) => ({
    size,
    said: describeItem(sketch, size),
    shown: shownValue(size, sketchState?.measured.get(size.id) ?? 0),
    wrong: sketchState?.sizeProblems.has(size.id) === true,
  }))
})

function shownValue(size: Size, value: number): string {
  const figure =
    size.kind === 'angle' ? formatAngle(value, parts.units) : formatLength(value, parts.units)
  return `${signOf(size)}${figure}`
}

function change(size: Size, event: Event): void {
  const text = (event.target as HTMLInputElement).value
  if (text === size.formula && !size.reference) return
  const result = parts.attempt(changeSize(board.sketch.id, size.id, text))
  problem.value = result.ok ? undefined : result.problem
}

function toggleReference(size: Size): void {
  const result = parts.attempt(setReference(board.sketch.id, size.id, !size.reference))
  problem.value = result.ok ? undefined : result.problem
}
</script>

<template>
  <h3>
    <button type="button" class="plain" :aria-expanded="open" @click="open = !open">
      {{ open ? '▾' : '▸' }} Sizes <span class="soft">{{ count }}</span>
    </button>
  </h3>
  <table v-if="open && rows.length > 0" aria-label="Sizes">
    <tbody>
      <tr
        v-for="row in rows"
        :key="row.size.id"
        :class="{ wrong: row.wrong }"
        @pointerenter="board.hover = row.size.id"
        @pointerleave="board.hover = undefined"
      >
        <th scope="row">
          <button
            type="button"
            class="plain figure"
            :title="row.said"
            @click="board.picks = [row.size.id]"
          >
            {{ row.size.name }}
          </button>
        </th>
        <td>
          <input
            class="figure"
            :value="row.size.reference ? '' : row.size.formula"
            :placeholder="row.size.reference ? 'reports only' : ''"
            :aria-label="`formula of ${row.size.name}`"
            spellcheck="false"
            @change="change(row.size, $event)"
          />
        </td>
        <td class="figure shown">{{ row.shown }}</td>
        <td>
          <button
            type="button"
            class="plain"
            :title="row.size.reference ? 'Let it drive again' : 'Let it only report'"
            @click="toggleReference(row.size)"
          >
            {{ row.size.reference ? 'drive' : 'ref.' }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="problem" class="wrong-note" role="alert">
    <strong>{{ problem.message }}</strong> {{ problem.mend }}
  </p>
</template>

<style scoped src="./table.css"></style>

<style scoped>
h3 .plain {
  padding: 0;
  font-weight: 600;
}

.soft {
  color: var(--ink-soft);
  font-weight: 400;
}

th .plain {
  padding: 0 2px;
}

.wrong-note {
  margin-top: 6px;
  color: var(--conflict);
  font-size: 12px;
}
</style>
