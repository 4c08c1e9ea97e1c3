<script setup lang="ts">
import type { Figure } from '@lathica/core/part'

/** Figures with their values, each to be kept in the sheet. */
export interface FigureRow {
  readonly figure: Figure
  readonly word: string
  readonly value: string
  /** Why there is no value. */
  readonly why: string
}

defineProps<{ label: string; rows: readonly FigureRow[] }>()
defineEmits<{ keep: [row: FigureRow] }>()
</script>

<template>
  <table :aria-label="label">
    <tbody>
      <tr v-for="row in rows" :key="row.figure.kind">
        <th scope="row">{{ row.word }}</th>
        <td class="figure" :title="row.why">
          <span v-if="row.why" class="why">{{ row.why }}</span>
          <template v-else>{{ row.value }}</template>
        </td>
        <td>
          <button type="button" class="plain keep" @click="$emit('keep', row)">keep</button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped src="./figures.css"></style>

<style scoped>
td:last-child {
  width: 54px;
}

.why {
  color: var(--ink-soft);
  font-family: 'IBM Plex Sans', sans-serif;
  font-size: 12px;
}

.keep {
  color: var(--accent-deep);
  font-weight: 600;
}
</style>
