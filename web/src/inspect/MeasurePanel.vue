<script setup lang="ts">
import { BODY_FIGURES, PLAY_FIGURES, WHOLE_BODY, type Figure } from '@lathica/core/part'
import { addChecks } from '@lathica/core/edit'
import {
  figureValue,
  figureWord,
  figuresOf,
  pickWords,
  pickedIn,
  tellMeasured,
  unitOfFigure,
} from '@lathica/core/inspect'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { tell } from '../notices'
import { useInspectStore } from '../store/inspect'
import { useMeasuresStore } from '../store/measures'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'
import FigureRows, { type FigureRow } from './FigureRows.vue'

/** What is picked, all figures it has, and how one body moves in another. */
const parts = usePartStore()
const inspect = useInspectStore()

function rowFor(figure: Figure): FigureRow {
  const { part } = parts
  const word = figureWord(figure.kind, parts.lie)
  if (!part) return { figure, word, value: '–', why: '' }
  const found = figureValue(figure, part, inspect.standing)
  if (!found.ok) return { figure, word, value: '–', why: found.problem.message }
  const unit = unitOfFigure(figure.kind, part)
  return { figure, word, value: tellMeasured(found.value, unit), why: '' }
}

const named = computed(() =>
  inspect.picks.map((pick) => {
    const picked = pickedIn(inspect.standing, pick)
    const body = parts.bodies.length > 1 ? parts.bodies.find((b) => b.id === pick.body)?.name : ''
    const words = picked
      ? pickWords(picked, parts.part ?? { units: parts.units, route: [] })
      : 'gone'
    return pick.key === WHOLE_BODY && body
      ? { pick, picked, words: body, body: '' }
      : { pick, picked, words, body }
  }),
)
const rows = computed(() => {
  const picked = named.value.flatMap((n) => n.picked ?? [])
  if (picked.length < inspect.picks.length) return []
  const [body, other] = inspect.picks.flatMap((p) => (p.key === WHOLE_BODY ? [p.body] : []))
  if (body && inspect.picks.length === 1) return BODY_FIGURES.map((kind) => rowFor({ kind, body }))
  if (body && other && inspect.picks.length === 2) return playOf(body, other)
  return figuresOf(picked, inspect.standing[0]?.told).map((kind) =>
    rowFor({ kind, picks: inspect.picks }),
  )
})

const moving = ref('')
const still = ref('')
watch(
  () => parts.bodies.map((b) => b.id).join(),
  () => {
    const [first, second] = parts.bodies
    still.value = first?.id ?? ''
    moving.value = second?.id ?? ''
  },
  { immediate: true },
)
const owners = computed(() => parts.bodies.map((b) => ({ value: b.id, label: b.name })))
const playOf = (body: string, other: string): FigureRow[] =>
  PLAY_FIGURES.map((kind) => rowFor({ kind, body, other }))
const played = computed(() =>
  moving.value === still.value ? [] : playOf(moving.value, still.value),
)
/** Two bodies that are picked are told above already. */
const isPlayTold = computed(
  () => inspect.picks.length === 2 && inspect.picks.every((p) => p.key === WHOLE_BODY),
)

const measures = useMeasuresStore()
watch(
  [rows, played, isPlayTold],
  () => {
    const told = parts.bodies.length > 1 && !isPlayTold.value ? played.value : []
    measures.shown = [...rows.value, ...told].map((r) => r.figure)
  },
  { immediate: true },
)
onBeforeUnmount(() => (measures.shown = []))

function keep({ figure, word }: FigureRow): void {
  const { part } = parts
  if (!part || !parts.run(addChecks([{ figure, unit: unitOfFigure(figure.kind, part).name }])))
    return
  tell(`Kept in the sheet: ${word}.`)
}
</script>

<template>
  <section class="measure" aria-label="Measure">
    <p v-if="inspect.picks.length === 0" class="hint">
      Click a face, an edge, a point on the axis or the axis; a second one gives distances and
      angles, Shift and click adds more faces to sum their area. A click in the material, or a
      double click on the solid, takes the whole body: two of them tell their play.
    </p>
    <ul v-else class="picks">
      <li v-for="n in named" :key="`${n.pick.body} ${n.pick.key}`">
        <span
          >{{ n.words }}<span v-if="n.body" class="soft"> of {{ n.body }}</span></span
        >
        <button
          type="button"
          class="plain"
          :aria-label="`let go of ${n.words}`"
          @click="inspect.take(n.pick)"
        >
          ✕
        </button>
      </li>
    </ul>
    <FigureRows v-if="rows.length > 0" label="Figures of the picks" :rows="rows" @keep="keep" />
    <p v-else-if="inspect.picks.length > 1" class="hint">These have no figure together.</p>
    <template v-if="parts.bodies.length > 1 && !isPlayTold">
      <h2>A body in another</h2>
      <div class="pair">
        <PlainSelect id="play-moving" v-model="moving" aria-label="Moving body" :options="owners" />
        <span>in</span>
        <PlainSelect id="play-still" v-model="still" aria-label="Still body" :options="owners" />
      </div>
      <p v-if="moving === still" class="hint">Choose two different bodies.</p>
      <FigureRows v-else label="Play" :rows="played" @keep="keep" />
    </template>
  </section>
</template>

<style scoped src="./figures.css"></style>

<style scoped>
.measure {
  min-height: 0;
  padding: 10px 14px;
  overflow: auto;
}

.hint {
  color: var(--ink-soft);
}

.picks {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}

.picks li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding-left: 8px;
  border-left: 3px solid var(--halo);
  margin-bottom: 3px;
  background: var(--halo-wash);
}

h2 {
  margin: 16px 0 6px;
}

.pair {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  align-items: center;
  gap: 8px;
  margin-bottom: 6px;
}
</style>
