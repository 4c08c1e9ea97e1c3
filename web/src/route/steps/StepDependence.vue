<script setup lang="ts">
import type { Step } from '@lathica/core/part'
import { dependenceOf } from '@lathica/core/route'
import { computed } from 'vue'
import { useBoardStore } from '../../store/board'
import { usePartStore } from '../../store/part'
import { stepTitle } from '../kinds'

/** What a step stands on, and which later steps stand on it; each opens by a click. */
const props = defineProps<{ step: Step }>()
const parts = usePartStore()
const board = useBoardStore()

const rows = computed(() => {
  const { part } = parts
  if (!part) return []
  const { needs, carries } = dependenceOf(part, props.step.id)
  const steps = (ids: readonly string[]): Step[] =>
    ids.flatMap((id) => part.route.find((s) => s.id === id) ?? [])
  return [
    { words: 'Stands on', steps: steps(needs) },
    { words: 'Carries', steps: steps(carries) },
  ]
})
</script>

<template>
  <dl class="fields dependence">
    <template v-for="row in rows" :key="row.words">
      <dt>{{ row.words }}</dt>
      <dd>
        <template v-if="row.steps.length === 0">no other step</template>
        <button
          v-for="s in row.steps"
          :key="s.id"
          type="button"
          class="plain"
          @click="board.stepId = s.id"
        >
          {{ s.number }} {{ stepTitle(s) }}
        </button>
      </dd>
    </template>
  </dl>
</template>

<style scoped src="../card.css"></style>

<style scoped>
.fields.dependence {
  margin-top: 12px;
  padding-top: 10px;
  border-top: 1px solid var(--rule);
  color: var(--ink-soft);
  font-size: 12px;
}

.plain {
  padding: 0 5px;
  color: var(--accent-deep);
}
</style>
