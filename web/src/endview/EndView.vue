<script setup lang="ts">
import type { Vec } from '@lathica/core/geometry'
import { threadArc } from '@lathica/core/route'
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { hasMaterial } from '../commands/makeStep'
import { endSketch } from '../commands/millActions'
import type { Px } from '../board/view'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useNotesStore } from '../store/notes'
import { useRouteStore } from '../store/route'
import EndGrips from './EndGrips.vue'
import { useEndLines, type End } from './useEndLines'

const board = useBoardStore()
const parts = usePartStore()
const route = useRouteStore()
const notes = useNotesStore()
const pane = useTemplateRef<HTMLElement>('pane')
const { width, height } = useElementSize(pane)
const from = ref<End>('right')

const lying = computed(() => parts.lie !== 'standing')
/** The axis stands where it stands on the board, so that circles line up with heights there. */
const inLine = computed(() => {
  const { view } = board
  if (!view || board.looksAtEnd) return { x: width.value / 2, y: height.value / 2 }
  return lying.value
    ? { x: width.value / 2, y: view.origin.y }
    : { x: view.origin.x, y: height.value / 2 }
})
const { circles: seen, lines } = useEndLines(from)
/** Up on the page is where the half-section lies, as in the solid's own views. */
function onPage({ x, y }: Vec): Px {
  const [s, flip] = [scale.value, from.value === 'right' ? -1 : 1]
  return lying.value ? { x: s * flip * y, y: -s * x } : { x: s * x, y: s * flip * y }
}
function inPart({ x, y }: Px): Vec {
  const [s, flip] = [scale.value, from.value === 'right' ? -1 : 1]
  return lying.value ? { x: -y / s, y: (flip * x) / s } : { x: x / s, y: (flip * y) / s }
}
function pathOf(places: readonly number[]): string {
  const at = (a: number, b: number): string => {
    const { x, y } = onPage({ x: a, y: b })
    return `${x.toFixed(2)} ${y.toFixed(2)}`
  }
  const parts: string[] = []
  for (let i = 0; i < places.length; i += 4) {
    const [a = 0, b = 0, c = 0, d = 0] = places.slice(i, i + 4)
    parts.push(`M${at(a, b)}L${at(c, d)}`)
  }
  return parts.join('')
}
/** Threads whose mouth is turned this way: three quarters of a thin circle each. */
const threads = computed(() => {
  const way = from.value === 'right' ? -1 : 1
  const open = [...route.threads, ...notes.circles].filter(({ frame: { z }, through }) =>
    through ? Math.abs(z.z) > 0.99 : way * z.z > 0.99,
  )
  return open.map((thread) => {
    const places = threadArc(thread)
    return pathOf(
      places.slice(1).flatMap((b, i) => [places[i]?.x ?? 0, places[i]?.y ?? 0, b.x, b.y]),
    )
  })
})
/** Where the step in hand can be taken hold of, of bodies that are seen. */
const inHand = computed(() => {
  const seenBodies = new Set(route.followedVisible.map((b) => b.bodyId))
  const grips = (route.currentState?.grips ?? []).filter(({ body }) => seenBodies.has(body))
  const step = route.openStep
  return step && step.kind !== 'unknown' && grips.length > 0 ? { step, grips } : undefined
})
/** What is said of the place that is dragged. */
const told = ref({ words: '', isRefused: false })
watch(inHand, (now) => {
  if (!now) told.value = { words: '', isRefused: false }
})
/** The board's own scale where the circles fit the pane, else one at which they do. */
const scale = computed(() => {
  const greatest = lines.value?.reach ?? Math.max(1e-9, ...seen.value.map((c) => c.radius))
  const { x, y } = inLine.value
  // Below stands the line that says from where one looks.
  const room = Math.min(x, width.value - x, y, height.value - y - 16) - 18
  const own = (board.looksAtEnd ? undefined : board.view?.scale) ?? 1e9
  return greatest * own <= room ? own : (Math.min(width.value, height.value) / 2 - 32) / greatest
})
const reduced = computed(
  () => !board.looksAtEnd && scale.value !== board.view?.scale && seen.value.length > 0,
)
const centre = computed(() =>
  reduced.value ? { x: width.value / 2, y: height.value / 2 - 9 } : inLine.value,
)
const circles = computed(() => seen.value.map((c) => ({ ...c, r: c.radius * scale.value })))
const reach = computed(() => {
  const own = lines.value ? [lines.value.reach * scale.value] : circles.value.map((c) => c.r)
  return Math.max(30, ...own) + 14
})
const side = computed(() => {
  if (lying.value) return from.value === 'right' ? 'from the right' : 'from the left'
  return from.value === 'right' ? 'from above' : 'from below'
})
</script>

<template>
  <section ref="pane" class="end-view" aria-label="End view">
    <svg v-if="width > 0" :width="width" :height="height" role="img" :aria-label="side">
      <g :transform="`translate(${centre.x} ${centre.y})`">
        <path class="axis" :d="`M${-reach} 0H${reach}M0 ${-reach}V${reach}`" />
        <template v-if="lines">
          <path class="edge hidden" :d="pathOf(lines.hidden)" />
          <path class="edge" :d="pathOf(lines.seen)" />
          <path v-for="(thread, i) in threads" :key="i" class="thread" :d="thread" />
        </template>
        <EndGrips
          v-if="inHand"
          :key="inHand.step.id"
          :step="inHand.step"
          :grips="inHand.grips"
          :on-page="onPage"
          :in-part="inPart"
          @told="(words, isRefused) => (told = { words, isRefused })"
        />
        <circle
          v-for="(c, i) in lines ? [] : circles"
          :key="i"
          :r="c.r"
          :class="{ hidden: c.hidden }"
        />
      </g>
    </svg>
    <button
      v-if="board.looksAtEnd || hasMaterial()"
      type="button"
      class="plain draw"
      :title="
        board.looksAtEnd
          ? 'Takes the half-section in hand again'
          : 'Begins a sketch across the axis, on a face that is clicked (5 C)'
      "
      @click="board.looksAtEnd ? board.backToHalf() : endSketch()"
    >
      {{ board.looksAtEnd ? 'to the half-section' : 'draw here' }}
    </button>
    <p v-if="told.words !== ''" class="told figure" :class="{ refused: told.isRefused }">
      {{ told.words }}
    </p>
    <button
      type="button"
      class="plain figure side"
      title="Look from the other end"
      @click="from = from === 'right' ? 'left' : 'right'"
    >
      {{ side }}{{ reduced ? ', reduced' : '' }}
    </button>
  </section>
</template>

<style scoped>
.end-view {
  position: relative;
  overflow: hidden;
  min-width: 0;
  min-height: 0;
  background: var(--paper);
}

svg {
  position: absolute;
  inset: 0;
}

circle,
.edge {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
}

.thread {
  fill: none;
  stroke: var(--ink);
  stroke-width: 0.8;
}

circle.hidden {
  stroke-width: 0.9;
  stroke-dasharray: 5 3;
}

/* Short pieces take no dashes: hidden edges are thin and faint instead. */
.edge.hidden {
  stroke: var(--rule-strong);
  stroke-width: 0.9;
}

.axis {
  stroke: var(--accent);
  stroke-width: 1;
  stroke-dasharray: 16 3 3 3;
  fill: none;
}

.draw {
  position: absolute;
  top: 4px;
  right: 8px;
  background: var(--paper);
  font-size: 12px;
}

.told {
  position: absolute;
  right: 8px;
  bottom: 30px;
  left: 8px;
  margin: 0;
  font-size: 12px;
  text-align: center;
  pointer-events: none;
}

.told.refused {
  color: var(--conflict);
}

.side {
  position: absolute;
  bottom: 4px;
  left: 50%;
  transform: translateX(-50%);
  background: var(--paper);
  white-space: nowrap;
  font-size: 12px;
  color: var(--ink-soft);
}
</style>
