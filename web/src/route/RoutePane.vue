<script setup lang="ts">
import { formatMass } from '@lathica/core/units'
import type { Step } from '@lathica/core/part'
import { DEFECT_CODE } from '@lathica/core/route'
import { moveStep } from '@lathica/core/edit'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { chooseFiles } from '../files/bringIn'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import BodyList from './BodyList.vue'
import NoteList from './NoteList.vue'
import ProfileList from './ProfileList.vue'
import { useOpening } from './opening'
import ReportButton from './ReportButton.vue'
import RunBar from './RunBar.vue'
import { useStepDetail } from './stepDetail'
import { stepTitle } from './kinds'

const parts = usePartStore()
const board = useBoardStore()
const route = useRouteStore()
const { openStep, openBody } = useOpening()
const detailOf = useStepDetail()
const list = useTemplateRef<HTMLElement>('list')

interface Row {
  readonly step: Step
  readonly what: string
  readonly detail: string
  readonly mass: string
  readonly problem: string
  /** Whether the problem is a mistake of the computation itself. */
  readonly isDefect: boolean
  readonly notes: string
  readonly beyond: boolean
}

const runTo = computed(() => Math.min(route.runTo ?? parts.route.length, parts.route.length))
const rows = computed<Row[]>(() => {
  const { followed, units } = parts
  return parts.route.map((step, i) => {
    const found = followed?.steps[i]
    const change = found?.massChange ?? 0
    const sign = change < 0 ? '−' : '+'
    const told = Number.isNaN(change) ? '…' : `${sign}${formatMass(Math.abs(change), units)}`
    return {
      step,
      what: stepTitle(step),
      detail: step.aside ? 'set aside' : detailOf(step, i),
      mass: found?.status === 'done' ? told : '–',
      problem: found?.problem ? `${found.problem.message} ${found.problem.mend}` : '',
      isDefect: found?.problem?.code === DEFECT_CODE,
      notes: found?.notes.join(' ') ?? '',
      beyond: i >= runTo.value,
    }
  })
})

const details = computed(() => new Map(rows.value.map((r) => [r.step.id, r.detail])))

function open(step: Step): void {
  if (dragged.value === undefined) openStep(step)
}

// The opened row stays in sight beside its card.
watch(
  () => board.stepId,
  () => list.value?.querySelector('.open')?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)

/** A row or the bar that is being dragged, and before which row it would be put. */
const dragged = ref<string>()
const dropAt = ref<number>()
let pressed: { readonly id: string; readonly y: number } | undefined

/** The pointer has to go this far before a press becomes a drag, in pixels. */
const DRAG_THRESHOLD = 5

function onPress(event: PointerEvent, id: string): void {
  if (event.button === 0) pressed = { id, y: event.clientY }
}

function onMove(event: PointerEvent): void {
  if (!pressed || Math.abs(event.clientY - pressed.y) < DRAG_THRESHOLD) return
  dragged.value = pressed.id
  const boxes = [...(list.value?.children ?? [])].map((row) => row.getBoundingClientRect())
  dropAt.value = boxes.filter((b) => event.clientY > b.top + b.height / 2).length
}

function onRelease(): void {
  const [id, at] = [dragged.value, dropAt.value]
  pressed = undefined
  dropAt.value = undefined
  if (id === undefined || at === undefined) return
  // The click that ends a drag opens nothing.
  setTimeout(() => (dragged.value = undefined))
  if (id === RUN_BAR) setRun(at)
  else {
    const from = parts.route.findIndex((s) => s.id === id)
    parts.run(moveStep(id, at > from ? at - 1 : at))
  }
}

useEventListener(window, 'pointermove', onMove)
useEventListener(window, 'pointerup', onRelease)
useEventListener(
  window,
  'pointercancel',
  () => (pressed = dropAt.value = dragged.value = undefined),
)

const RUN_BAR = 'run'

/** How far the route is run; a step that is open would show otherwise, so it is closed. */
function setRun(count: number): void {
  const to = Math.max(0, Math.min(parts.route.length, count))
  board.stepId = undefined
  route.runTo = to === parts.route.length ? undefined : to
}

function onKey(event: KeyboardEvent): void {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (by === undefined || event.altKey) return
  event.preventDefault()
  event.stopPropagation()
  setRun(runTo.value + by)
  // The bar stands in another row then, as another element.
  void nextTick(() => list.value?.querySelector<HTMLElement>('.run')?.focus())
}
</script>

<template>
  <section class="route" aria-label="Route">
    <header>
      <h2>Route</h2>
      <RunBar v-if="rows.length > 0" :details="details" />
    </header>
    <p v-if="rows.length === 0" class="none">
      Nothing is made yet. Draw a profile that closes on the axis, then revolve it.
    </p>
    <ol ref="list" :class="{ dragging: dragged }">
      <li
        v-for="(row, i) in rows"
        :key="row.step.id"
        :class="{ over: dropAt === i, under: dropAt === i + 1 && i + 1 === rows.length }"
        @pointerdown="onPress($event, row.step.id)"
      >
        <button
          type="button"
          class="row"
          :class="{
            open: board.stepId === row.step.id,
            aside: row.step.aside,
            beyond: row.beyond,
            reported: row.isDefect,
          }"
          :aria-current="board.stepId === row.step.id ? 'step' : undefined"
          @click="open(row.step)"
        >
          <span class="number figure">{{ row.step.number }}</span>
          <span>{{ row.what }}</span>
          <span class="mass figure">{{ row.mass }}</span>
          <span v-if="row.problem" class="failed">
            <b aria-hidden="true">△</b> {{ row.problem }}
          </span>
          <span v-else class="detail">{{ row.detail }}</span>
          <span v-if="row.notes" class="notes">{{ row.notes }}</span>
        </button>
        <ReportButton v-if="row.isDefect" />
        <div
          v-if="rows.length > 1 && i + 1 === Math.max(1, runTo)"
          class="run"
          role="slider"
          tabindex="0"
          aria-label="Route is run to"
          aria-orientation="vertical"
          :aria-valuemin="1"
          :aria-valuemax="rows.length"
          :aria-valuenow="runTo"
          :aria-valuetext="`step ${row.step.number}`"
          title="Drag, or use the arrow keys, to run the route as far as here"
          @pointerdown.stop="onPress($event, RUN_BAR)"
          @keydown="onKey"
        >
          <span>{{ runTo < rows.length ? `run to ${row.step.number}` : 'all steps are run' }}</span>
          <button
            v-if="runTo < rows.length"
            type="button"
            class="plain"
            @click="setRun(rows.length)"
          >
            run all
          </button>
        </div>
      </li>
    </ol>
    <NoteList />
    <ProfileList />
    <BodyList v-if="rows.length > 0" @open="openBody" />
    <button
      type="button"
      class="plain bring"
      title="Solids of a STEP file as bodies, triangles of an STL or 3MF file to go by; or drop a file on the solid pane"
      @click="chooseFiles"
    >
      bring in a file
    </button>
  </section>
</template>

<style scoped>
.route {
  overflow: auto;
  min-height: 0;
}

header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  padding: 8px 14px;
  border-bottom: 1px solid var(--rule);
}

.none {
  padding: 10px 14px;
  color: var(--ink-soft);
  font-size: 12px;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

ol.dragging {
  cursor: grabbing;
  user-select: none;
}

li.over {
  box-shadow: inset 0 2px var(--halo);
}

li.under {
  box-shadow: inset 0 -2px var(--halo);
}

.row {
  display: grid;
  grid-template-columns: 32px 1fr auto;
  width: 100%;
  padding: 6px 14px 7px 11px;
  border: 0;
  border-left: 3px solid transparent;
  border-bottom: 1px solid var(--rule);
  background: none;
  text-align: left;
  cursor: pointer;
}

.row.reported {
  border-bottom: 0;
}

.row:hover {
  background: var(--paper);
}

.row:focus-visible {
  outline-offset: -2px;
}

.row.open {
  background: var(--halo-wash);
  border-left-color: var(--halo);
}

.row.aside > :not(.detail),
.row.beyond > * {
  opacity: 0.6;
}

.number {
  grid-row: span 2;
  color: var(--ink-soft);
}

.detail {
  grid-column: 2 / 4;
  color: var(--ink-soft);
  font-size: 12px;
}

.failed {
  grid-column: 2 / 4;
  color: var(--conflict);
  font-size: 12px;
}

.notes {
  grid-column: 2 / 4;
  color: var(--caution-deep, var(--ink));
  font-size: 12px;
  font-style: italic;
}

.bring {
  margin: 4px 14px 8px;
  padding: 2px 0;
  color: var(--ink-soft);
  font-size: 12px;
}

.run {
  display: flex;
  justify-content: space-between;
  align-items: center;
  height: 26px;
  padding: 0 14px;
  border-top: 3px solid var(--accent);
  color: var(--accent-deep);
  font-size: 11px;
  cursor: row-resize;
}
</style>
