<script setup lang="ts">
import type { BlockShows, TitleBlock } from '@lathica/core/part'
import { sumOf } from '@lathica/core/part'
import { computed } from 'vue'

/** The block as it will stand, larger: its cells are picked, and put where there is none. */
const props = defineProps<{
  block: TitleBlock
  words: Readonly<Record<BlockShows, string>>
  /** What fields have in the part in hand. */
  values: Readonly<Partial<Record<BlockShows, string>>>
  inHand: number
  free: readonly { readonly row: number; readonly column: number }[]
}>()
const emit = defineEmits<{ pick: [at: number]; add: [row: number, column: number] }>()

/** Pixels for a mm of paper. */
const SCALE = 3.2
const px = (lines: readonly number[]): string => lines.map((l) => `${l * SCALE}px`).join(' ')
const style = computed(() => ({
  gridTemplateColumns: px(props.block.columns),
  gridTemplateRows: px(props.block.rows),
  width: `${sumOf(props.block.columns) * SCALE + 2}px`,
}))
const mark = computed(() => props.block.mark)

/** What stands there now; its name where that is nothing, and its label does not say it. */
const shown = (field: BlockShows, label: string): string =>
  props.values[field] || (label === props.words[field] ? '' : props.words[field])
</script>

<template>
  <div class="frame">
    <div class="grid" :style="style" role="group" aria-label="Cells of the title block">
      <button
        v-for="(c, i) in block.cells"
        :key="i"
        type="button"
        class="cell"
        :class="{ picked: i === inHand }"
        :aria-pressed="i === inHand"
        :aria-label="`cell ${c.label || words[c.shows]}`"
        :style="{
          gridArea: `${c.row + 1} / ${c.column + 1} / span ${c.down} / span ${c.across}`,
        }"
        @click="emit('pick', i)"
      >
        <span class="label">{{ c.label }}</span>
        <svg
          v-if="c.shows === 'mark' && mark"
          :viewBox="`0 0 ${mark.width} ${mark.height}`"
          aria-hidden="true"
        >
          <path
            v-for="(p, n) in mark.paths"
            :key="n"
            :d="p.d"
            fill-rule="evenodd"
            :class="p.tone"
          />
        </svg>
        <span
          v-else
          class="shown figure"
          :class="{ own: c.shows === 'words' }"
          :style="{ fontSize: `${Math.min(c.letter, 5) * SCALE * 1.1}px` }"
        >
          {{ c.shows === 'words' ? c.words : shown(c.shows, c.label) }}
        </span>
      </button>
      <button
        v-for="f in free"
        :key="`${f.row}/${f.column}`"
        type="button"
        class="cell none"
        :aria-label="`put a cell in row ${f.row + 1}, column ${f.column + 1}`"
        :style="{ gridArea: `${f.row + 1} / ${f.column + 1}` }"
        @click="emit('add', f.row, f.column)"
      >
        +
      </button>
    </div>
  </div>
</template>

<style scoped>
.frame {
  overflow: auto;
  max-height: 340px;
  padding: 1px;
}

.grid {
  display: grid;
  border: 2px solid var(--ink);
  background: var(--panel);
}

.cell {
  position: relative;
  min-width: 0;
  min-height: 0;
  padding: 0 4px;
  overflow: hidden;
  border: 0;
  outline: 1px solid var(--rule-strong);
  outline-offset: -0.5px;
  background: none;
  color: var(--ink);
  text-align: left;
  white-space: nowrap;
  cursor: pointer;
}

.cell:hover {
  background: var(--paper);
}

.cell:focus-visible {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}

.picked,
.picked:hover {
  z-index: 1;
  outline: 2px solid var(--halo);
  outline-offset: -2px;
  background: var(--halo-wash);
}

.label {
  position: absolute;
  top: 1px;
  left: 4px;
  color: var(--ink-soft);
  font-size: 9px;
  line-height: 1.1;
}

.shown {
  position: absolute;
  bottom: 1px;
  left: 4px;
  color: var(--ink-soft);
  line-height: 1.15;
}

.own {
  color: var(--ink);
}

.none {
  color: var(--ink-soft);
  text-align: center;
}

svg {
  display: block;
  padding: 3px;
  width: 100%;
  height: 100%;
}

.ink {
  fill: currentColor;
}

.paper {
  fill: var(--panel);
}

.line {
  fill: none;
  stroke: currentColor;
  vector-effect: non-scaling-stroke;
}
</style>
