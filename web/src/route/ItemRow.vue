<script setup lang="ts">
import type { Constraint, Size } from '@lathica/core/sketch'
import { describeItem } from '@lathica/core/constraints'
import { removeItems, setReference } from '@lathica/core/edit'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** A constraint or size in a list: told in words, lit on hover, to be opened, let report, deleted. */
const props = defineProps<{ item: Constraint | Size }>()
const emit = defineEmits<{ open: [] }>()
const board = useBoardStore()
const parts = usePartStore()

const words = computed(() => describeItem(board.sketch, props.item))
const size = computed(() => ('formula' in props.item ? props.item : undefined))
</script>

<template>
  <li>
    <button
      type="button"
      class="plain what"
      @click="emit('open')"
      @pointerenter="board.hover = item.id"
      @pointerleave="board.hover = undefined"
    >
      {{ words }}{{ size?.reference ? ' (ref.)' : '' }}
    </button>
    <button
      v-if="size"
      type="button"
      class="plain"
      :title="size.reference ? 'Let it drive again' : 'Let it only report'"
      @click="parts.run(setReference(board.sketch.id, size.id, !size.reference))"
    >
      {{ size.reference ? 'drive' : 'ref.' }}
    </button>
    <button
      type="button"
      class="plain"
      title="Delete"
      :aria-label="`Delete ${words}`"
      @click="parts.run(removeItems(board.sketch.id, [item.id]))"
    >
      ×
    </button>
  </li>
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
}

.plain {
  flex: none;
}

.what {
  flex: 1;
  min-width: 0;
  text-align: left;
}
</style>
