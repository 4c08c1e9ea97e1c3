<script setup lang="ts">
import { isEndSketch } from '@lathica/core/sketch'
import { flattenPoints, type Onto } from '@lathica/core/edit'
import { Button, Checkbox } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** Brings several picked points onto one radius, one place along the axis, or a straight line. */
const props = defineProps<{ ids: readonly string[] }>()
const board = useBoardStore()
const parts = usePartStore()
const keep = ref(false)

const ways = computed<readonly { readonly onto: Onto; readonly words: string }[]>(() => {
  const isEnd = isEndSketch(board.sketch)
  return [
    { onto: 'radius', words: isEnd ? 'level' : 'diameter' },
    { onto: 'place', words: isEnd ? 'upright' : 'place' },
    ...(props.ids.length > 2 ? [{ onto: 'line', words: 'line' } as const] : []),
  ]
})
</script>

<template>
  <div class="flatten" role="group" aria-label="Flatten">
    <span class="soft">Flatten onto a</span>
    <Button
      v-for="{ onto, words } in ways"
      :key="onto"
      size="small"
      @click="parts.run(flattenPoints(board.sketch.id, ids, onto, keep))"
    >
      {{ words }}
    </Button>
    <Checkbox v-model:checked="keep">kept so</Checkbox>
  </div>
</template>

<style scoped>
.flatten {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
  margin: 12px 0 8px;
}

.soft {
  color: var(--ink-soft);
}
</style>
