<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { useBoardStore } from '../store/board'
import { useSolidsStore } from '../store/solids'

/** How far the kernel is with what is shown, and how to have it left; or that it was left. */
const solids = useSolidsStore()
const board = useBoardStore()
</script>

<template>
  <div class="building">
    <template v-if="!solids.isStopped">
      <span role="status">building the solid …</span>
      <span v-if="solids.ahead" class="count"
        >{{ solids.ahead.done }} of {{ solids.ahead.of }}</span
      >
      <progress
        v-if="solids.ahead"
        :value="solids.ahead.done"
        :max="solids.ahead.of"
        aria-label="Operations that are done"
      />
      <Button v-if="solids.canStop" size="small" @click="solids.stop()"
        >Stop<kbd v-if="board.pointed === 'solid'">Esc</kbd></Button
      >
    </template>
    <template v-else>
      <span role="status">Stopped: the picture is the one before.</span>
      <Button size="small" @click="solids.goOn()">Build it</Button>
    </template>
  </div>
</template>

<style scoped>
.building {
  position: absolute;
  right: 10px;
  bottom: 8px;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 3px 4px 3px 8px;
  border-radius: 4px;
  background: var(--panel);
  color: var(--ink-soft);
  font-size: 12px;
}

.count {
  font-variant-numeric: tabular-nums;
}

progress {
  width: 72px;
  height: 4px;
  accent-color: var(--accent);
}
</style>
