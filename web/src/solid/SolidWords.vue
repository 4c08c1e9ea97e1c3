<script setup lang="ts">
import type { Label } from './spreadLabels'

/** What is written over the solid: sizes of the step that is looked at, and what lies under the pointer. */
defineProps<{
  labels: readonly Label[]
  pointed: string
  styleOfPointed: Readonly<Record<string, string>> | undefined
}>()
</script>

<template>
  <svg v-if="labels.length > 0" class="leaders" aria-hidden="true">
    <g v-for="l in labels" :key="l.words">
      <line class="rim" :x1="l.at.x" :y1="l.at.y" :x2="l.x" :y2="l.y" />
      <line :x1="l.at.x" :y1="l.at.y" :x2="l.x" :y2="l.y" />
      <circle class="rim" :cx="l.at.x" :cy="l.at.y" r="3" />
      <circle :cx="l.at.x" :cy="l.at.y" r="2.5" />
    </g>
  </svg>
  <span
    v-for="l in labels"
    :key="l.words"
    class="words size figure"
    :class="l.side"
    :style="{ left: `${l.x}px`, top: `${l.y}px` }"
  >
    {{ l.words }}
  </span>
  <p v-if="pointed" class="words" :style="styleOfPointed">{{ pointed }}</p>
</template>

<style scoped src="../ui/words.css"></style>
<style scoped>
.size {
  transform: translate(0, -50%);
}

.size.left {
  transform: translate(-100%, -50%);
}

.leaders {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  fill: var(--ink);
  stroke: var(--ink);
  pointer-events: none;
}

/* Leaders are seen on dark material too. */
.leaders .rim {
  stroke: var(--paper);
  stroke-width: 3.5;
  opacity: 0.75;
}
</style>
