<script setup lang="ts">
import { dependenceOf, type Step } from '@lathica/core'
import { computed } from 'vue'
import { useBoardStore } from '../../store/board'
import { usePartStore } from '../../store/part'
import { stepTitle } from '../words'

/** What a step stands on, and which later steps stand on it; each opens by a click. */
const props = defineProps<{ step: Step }>()
const parts = usePartStore()
const board = useBoardStore()

const found = computed(() => {
  const { part } = parts
  if (!part) return { needs: [], carries: [] }
  const { needs, carries } = dependenceOf(part, props.step.id)
  const steps = (ids: readonly string[]): Step[] =>
    ids.flatMap((id) => part.route.find((s) => s.id === id) ?? [])
  return { needs: steps(needs), carries: steps(carries) }
})
</script>

<template>
  <dl class="fields dependence">
    <dt>Stands on</dt>
    <dd>
      <template v-if="found.needs.length === 0">no other step</template>
      <button
        v-for="s in found.needs"
        :key="s.id"
        type="button"
        class="plain"
        @click="board.stepId = s.id"
      >
        {{ s.number }} {{ stepTitle(s) }}
      </button>
    </dd>
    <dt>Carries</dt>
    <dd>
      <template v-if="found.carries.length === 0">no other step</template>
      <button
        v-for="s in found.carries"
        :key="s.id"
        type="button"
        class="plain"
        @click="board.stepId = s.id"
      >
        {{ s.number }} {{ stepTitle(s) }}
      </button>
    </dd>
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
