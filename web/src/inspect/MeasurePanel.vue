<script setup lang="ts">
import {
  PLAY_FIGURES,
  addChecks,
  figureValue,
  figureWord,
  figuresOf,
  pickWords,
  pickedIn,
  tellValue,
  unitOfFigure,
  type Figure,
} from '@lathica/core'
import { computed, ref, watch } from 'vue'
import { tell } from '../notices'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

/** What is picked, all figures it has, and how one body moves in another. */
const parts = usePartStore()
const inspect = useInspectStore()

interface Row {
  readonly figure: Figure
  readonly word: string
  readonly value: string
  readonly why: string
}

function rowFor(figure: Figure): Row {
  const { part } = parts
  const word = figureWord(figure.kind, parts.lie)
  if (!part) return { figure, word, value: '–', why: '' }
  const found = figureValue(figure, part, inspect.standing)
  return found.ok
    ? {
        figure,
        word,
        value: tellValue(found.value.value, unitOfFigure(figure.kind, part)),
        why: '',
      }
    : { figure, word, value: '–', why: found.problem.message }
}

const named = computed(() =>
  inspect.picks.map((pick) => {
    const picked = pickedIn(inspect.standing, pick)
    const body = parts.bodies.length > 1 ? parts.bodies.find((b) => b.id === pick.body)?.name : ''
    return { pick, picked, words: picked ? pickWords(picked, parts.units) : 'gone', body }
  }),
)
const rows = computed(() => {
  const picked = named.value.flatMap((n) => n.picked ?? [])
  if (picked.length < inspect.picks.length) return []
  return figuresOf(picked).map((kind) => rowFor({ kind, picks: inspect.picks }))
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
const play = computed(() =>
  PLAY_FIGURES.map((kind) => rowFor({ kind, body: moving.value, other: still.value })),
)

function keep({ figure, word }: Row): void {
  const { part } = parts
  if (!part || !parts.run(addChecks([{ figure, unit: unitOfFigure(figure.kind, part).name }])))
    return
  tell(`Kept in the sheet: ${word}.`)
}
</script>

<template>
  <section class="measure" aria-label="Measure">
    <p v-if="inspect.picks.length === 0" class="hint">
      Click a face, an edge or the axis on the section or the solid; a second one gives distances
      and angles. Shift and click adds more faces to sum their area.
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
    <table v-if="rows.length > 0" aria-label="Figures of the picks">
      <tbody>
        <tr v-for="row in rows" :key="row.figure.kind">
          <th scope="row">{{ row.word }}</th>
          <td class="figure">{{ row.value }}</td>
          <td><button type="button" class="plain keep" @click="keep(row)">keep</button></td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="inspect.picks.length > 1" class="hint">These have no figure together.</p>
    <template v-if="parts.bodies.length > 1">
      <h2>A body in another</h2>
      <div class="pair">
        <PlainSelect id="play-moving" v-model="moving" aria-label="Moving body" :options="owners" />
        <span>in</span>
        <PlainSelect id="play-still" v-model="still" aria-label="Still body" :options="owners" />
      </div>
      <p v-if="moving === still" class="hint">Choose two different bodies.</p>
      <table v-else aria-label="Play">
        <tbody>
          <tr v-for="row in play" :key="row.figure.kind">
            <th scope="row">{{ row.word }}</th>
            <td class="figure" :title="row.why">
              {{ row.why ? '' : row.value }}
              <span v-if="row.why" class="why">{{ row.why }}</span>
            </td>
            <td><button type="button" class="plain keep" @click="keep(row)">keep</button></td>
          </tr>
        </tbody>
      </table>
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

td:last-child {
  width: 54px;
}

.why {
  color: var(--ink-soft);
  font-family: 'IBM Plex Sans', sans-serif;
  font-size: 12px;
}

.keep {
  color: var(--accent-deep);
  font-weight: 600;
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
