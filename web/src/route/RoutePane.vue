<script setup lang="ts">
import { formatLength, formatMass, type Step } from '@lathica/core'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

const parts = usePartStore()
const board = useBoardStore()

interface Row {
  readonly step: Step
  readonly what: string
  readonly detail: string
  readonly mass: string
  readonly problem: string
  readonly aside: boolean
}

const rows = computed<Row[]>(() => {
  const { route, followed, units } = parts
  return route.map((step, i) => {
    const found = followed?.steps[i]
    const change = found?.massChange ?? 0
    const sign = change < 0 ? '−' : '+'
    return {
      step,
      what: step.kind === 'revolve' ? 'Revolve' : String(step.kept['kind']),
      detail: step.aside ? 'set aside' : detailOf(step),
      mass: found?.status === 'done' ? `${sign}${formatMass(Math.abs(change), units)}` : '–',
      problem: found?.problem ? `${found.problem.message} ${found.problem.mend}` : '',
      aside: step.aside,
    }
  })
})

/** The key size of a step: what it made, at a glance. */
function detailOf(step: Step): string {
  const { part, followed, units } = parts
  if (!part || step.kind !== 'revolve') return 'not known to this version'
  const name = part.sketches.find((s) => s.id === step.sketch)?.name ?? '?'
  const solid = followed?.bodies.find((b) => b.bodyId === step.body)?.solid
  if (!solid) return `profile ${name}`
  const diameter = formatLength(2 * solid.radius, units)
  return `profile ${name}, ⌀${diameter} × ${formatLength(solid.to - solid.from, units)}`
}

function open(step: Step): void {
  board.useTool('pick')
  board.picks = []
  board.stepId = step.id
  if (step.kind === 'revolve') board.sketchId = step.sketch
}
</script>

<template>
  <section class="route" aria-label="Route">
    <h2>Route</h2>
    <p v-if="rows.length === 0" class="none">
      Nothing is made yet. Draw a profile that closes on the axis, then revolve it.
    </p>
    <ol>
      <li v-for="row in rows" :key="row.step.id">
        <button
          type="button"
          class="row"
          :class="{ open: board.stepId === row.step.id, aside: row.aside }"
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
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.route {
  overflow: auto;
  min-height: 0;
}

h2 {
  padding: 11px 14px;
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

.row.aside > :not(.detail) {
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
</style>
