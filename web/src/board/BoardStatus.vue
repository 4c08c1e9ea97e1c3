<script setup lang="ts">
import { formatLength, unitScale } from '@lathica/core/units'
import { isAcross } from '@lathica/core/sketch'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { edgeOut } from './beyond'
import { roundLength } from './view'

defineProps<{ hiddenSizes: number }>()

const board = useBoardStore()
const parts = usePartStore()

const scaleBar = computed(() => {
  if (!board.view) return undefined
  const length = roundLength(board.view, 110, unitScale('length', parts.units))
  return {
    width: length * board.view.scale,
    text: `${formatLength(length, parts.units)} ${parts.units.length}`,
  }
})
/** What is being drawn is not written over. */
const drawing = computed(() => {
  const { rubber = [], marks = [] } = board.toolState?.overlay ?? {}
  return rubber.length + marks.length > 0
})
/** Over material that stands there already a hint would hide more than it tells. */
const blank = computed(
  () =>
    !board.toolState?.entry &&
    !drawing.value &&
    board.isBlank &&
    !shows.value &&
    parts.part?.picture?.shown !== true,
)
const shows = computed(
  () => !board.looksAtEnd && board.sections.some(({ regions }) => regions.length > 0),
)
/** How far beyond the pane's edge the axis lies, where it is not seen. */
const beyond = computed(() => {
  const { view, pane } = board
  const edge = view ? edgeOut(view, pane.height) : 0
  return view && edge > 0
    ? `the axis lies ${formatLength(Number((edge / view.scale).toPrecision(3)), parts.units)} ${parts.units.length} beyond`
    : ''
})
const many = computed(() => parts.profiles.length > 1)
/** The profiles at hand; one that is hidden is in the list of profiles alone. */
const tabs = computed(() => parts.profiles.filter((p) => !p.putAway || p.id === board.sketch.id))
</script>

<template>
  <div class="profiles" data-floats>
    <template v-if="many">
      <button
        v-for="s in tabs"
        :key="s.id"
        type="button"
        class="plain"
        :class="{ current: s.id === board.sketch.id }"
        @click="board.sketchId = s.id"
      >
        {{ isAcross(s.plane) ? 'end sketch' : 'profile' }} {{ s.name }}
      </button>
    </template>
    <span v-else class="soft">profile {{ board.sketch.name }}</span>
  </div>
  <p v-if="blank && board.looksAtEnd" class="empty">
    Draw across the axis: <kbd>F</kbd> sets points for holes, <kbd>A</kbd> and <kbd>E</kbd> draw
    what is extruded.
  </p>
  <p v-else-if="blank" class="empty">
    Draw half of the section above the axis. <kbd>A</kbd> takes the chain in hand, <kbd>G</kbd> lays
    a stepped shaft.
  </p>
  <span v-if="beyond" class="beyond figure" :class="parts.lie">{{ beyond }}</span>
  <span
    v-if="scaleBar"
    class="scale figure"
    :style="{ left: `${14 + scaleBar.width + 8}px` }"
    aria-label="scale bar"
  >
    {{ scaleBar.text }}
    <span v-if="hiddenSizes > 0" class="hidden">
      · {{ hiddenSizes }} {{ hiddenSizes === 1 ? 'size' : 'sizes' }} too close to show; zoom in
    </span>
  </span>
</template>

<style scoped>
.profiles {
  position: absolute;
  top: 8px;
  left: 10px;
  display: flex;
  gap: 4px;
  /* The break line of a thin ring runs behind it. */
  background: var(--paper);
  font-size: 12px;
}

.profiles .soft {
  padding: 4px 6px;
}

.current {
  background: var(--halo-wash);
  font-weight: 600;
}

.empty {
  position: absolute;
  left: 50%;
  top: 38%;
  transform: translate(-50%, -50%);
  padding: 4px 10px;
  background: var(--paper);
  color: var(--ink-soft);
  font-size: 14px;
  white-space: nowrap;
  pointer-events: none;
}

.beyond {
  position: absolute;
  right: 10px;
  bottom: 4px;
  color: var(--pencil);
  font-size: 11px;
  pointer-events: none;
}

.beyond.standing {
  right: auto;
  left: 4px;
  bottom: 50%;
  writing-mode: vertical-rl;
  transform: rotate(180deg);
}

.scale {
  position: absolute;
  bottom: 3px;
  color: var(--pencil);
  font-size: 11px;
  pointer-events: none;
}
</style>
