<script setup lang="ts">
import { computed, useId } from 'vue'
import type { PartSummary } from '@lathica/core/inspect'
import { sectionPicture } from './sectionPicture'

const props = defineProps<{ summary: PartSummary }>()
const picture = computed(() => sectionPicture(props.summary))
const id = useId()
const standing = computed(() => props.summary.lie === 'standing')
</script>

<template>
  <svg v-if="picture" class="picture" :viewBox="picture.viewBox" aria-hidden="true">
    <defs>
      <pattern
        :id="`${id}-hatch`"
        patternUnits="userSpaceOnUse"
        :width="6 * picture.pixel"
        :height="6 * picture.pixel"
        patternTransform="rotate(45)"
      >
        <path :d="`M0 0V${6 * picture.pixel}`" class="hatch" :stroke-width="1.2 * picture.pixel" />
      </pattern>
      <linearGradient
        :id="`${id}-round`"
        :x1="0"
        :y1="0"
        :x2="standing ? 1 : 0"
        :y2="standing ? 0 : 1"
        :gradient-transform="standing ? 'rotate(180 0.5 0.5)' : ''"
      >
        <stop offset="0" :stop-color="`color-mix(in srgb, ${summary.colour} 62%, white)`" />
        <stop offset="0.45" :stop-color="summary.colour" />
        <stop offset="1" :stop-color="`color-mix(in srgb, ${summary.colour} 58%, black)`" />
      </linearGradient>
    </defs>
    <path
      v-for="(strip, i) in picture.strips"
      :key="i"
      :d="strip.d"
      :fill="summary.colour"
      :style="{ fill: `url(#${id}-round)` }"
      class="strip"
      :stroke-width="0.8 * picture.pixel"
    />
    <path :d="picture.section" class="paper" fill-rule="evenodd" />
    <path
      :d="picture.section"
      :style="{ fill: `url(#${id}-hatch)` }"
      class="outline"
      fill-rule="evenodd"
      :stroke-width="1.6 * picture.pixel"
    />
    <path :d="picture.pencil" class="pencil" :stroke-width="1.2 * picture.pixel" />
    <path
      :d="picture.axis"
      class="axis"
      :stroke-width="picture.pixel"
      :stroke-dasharray="[9, 2.5, 2, 2.5].map((n) => n * picture!.pixel).join(' ')"
    />
  </svg>
  <span v-else class="blank figure" aria-hidden="true">nothing drawn yet</span>
</template>

<style scoped>
.picture {
  width: 100%;
  height: 100%;
}

.hatch {
  stroke: var(--hatch);
}

.strip {
  stroke: var(--ink);
  stroke-opacity: 0.55;
}

.paper {
  fill: var(--panel);
}

.outline {
  stroke: var(--ink);
  stroke-linejoin: round;
}

.pencil {
  fill: none;
  stroke: var(--pencil);
}

.axis {
  fill: none;
  stroke: var(--accent);
}

.blank {
  color: var(--pencil);
  font-size: 12px;
}
</style>
