<script setup lang="ts">
import { describeItem } from '@lathica/core/constraints'
import { removeItems } from '@lathica/core/edit'
import { useTimeoutFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import type { Px } from './view'

/** How long the list is shown when the pointer keeps off it, in ms. */
const SHOWN_FOR = 5000
/** As many are listed at once; the others on request. */
const AT_ONCE = 4

const props = defineProps<{ at: Px | null; width: number; height: number }>()
const board = useBoardStore()
const parts = usePartStore()
const place = ref<Px>({ x: 0, y: 0 })
const { start, stop } = useTimeoutFn(() => (board.taken = []), SHOWN_FOR, { immediate: false })

const items = computed(() =>
  board.taken.flatMap((id) => board.sketch.constraints.find((c) => c.id === id) ?? []),
)
const all = ref(false)
const shown = computed(() => (all.value ? items.value : items.value.slice(0, AT_ONCE)))
const more = computed(() => items.value.length - shown.value.length)
const lines = computed(() => shown.value.length + Math.sign(more.value))
const style = computed(() => ({
  left: `${Math.min(Math.max(8, place.value.x + 22), Math.max(8, props.width - 250))}px`,
  top: `${Math.min(Math.max(8, place.value.y + 26), Math.max(8, props.height - 30 - 22 * lines.value))}px`,
}))

watch(
  () => board.taken,
  (taken) => {
    stop()
    all.value = false
    if (taken.length === 0) return
    place.value = props.at ?? { x: props.width / 2, y: props.height / 2 }
    start()
  },
)

watch(
  () => parts.part?.route.length,
  () => (board.taken = []),
)

function drop(id: string): void {
  parts.run(removeItems(board.sketch.id, [id]))
  board.taken = board.taken.filter((t) => t !== id)
}
</script>

<template>
  <ul
    v-if="items.length > 0"
    class="taken"
    aria-label="Constraints just taken"
    :style="style"
    @pointerenter="stop"
    @pointerleave="start"
  >
    <li v-for="item in shown" :key="item.id">
      <span>{{ describeItem(board.sketch, item) }}</span>
      <button
        type="button"
        class="plain"
        data-floats
        :aria-label="`Drop: ${describeItem(board.sketch, item)}`"
        title="Drop this constraint"
        @pointerdown.stop
        @click="drop(item.id)"
      >
        ×
      </button>
    </li>
    <li v-if="more > 0">
      <button type="button" class="plain all" data-floats @pointerdown.stop @click="all = true">
        {{ more }} more
      </button>
    </li>
  </ul>
</template>

<style scoped>
.taken {
  position: absolute;
  z-index: 2;
  margin: 0;
  padding: 2px 0 2px 8px;
  border-radius: 3px;
  background: var(--panel);
  color: var(--ink-soft);
  font-size: 12px;
  list-style: none;
  box-shadow: 0 1px 4px rgb(30 42 50 / 16%);
  pointer-events: none;
}

li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  height: 22px;
  white-space: nowrap;
}

.plain {
  padding: 0 8px;
  color: var(--ink);
  line-height: 20px;
  pointer-events: auto;
}
.all {
  margin-left: -8px;
  color: var(--accent-deep);
}
</style>
