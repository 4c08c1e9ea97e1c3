<script setup lang="ts">
import { EXPORT_CHORD_TOLERANCE } from '@lathica/core/tolerances'
import { formatLength } from '@lathica/core/units'
import { evaluateFormula } from '@lathica/core/formula'
import {
  EXPORTERS,
  meshedBodies,
  needsKernel,
  threadsToCut,
  touchWords,
  type BuiltGeometry,
  type Exporter,
} from '@lathica/core/formats'
import { Button } from 'ant-design-vue'
import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { geometryFor } from '../kernel/geometry'
import { tellProblem } from '../notices'
import { usePartStore } from '../store/part'
import { useSheetFiles } from '../sheet/useSheetFiles'
import { saveFile } from './saveFile'

/** Files of the part, with what they are made with. */
const parts = usePartStore()
const { saveDrawn } = useSheetFiles()
const FINEST = 1e-3
const COARSEST = 10

const toleranceText = ref('')
watch(
  () => parts.id,
  () => {
    toleranceText.value = formatLength(EXPORT_CHORD_TOLERANCE, parts.units)
  },
  { immediate: true },
)

const tolerance = computed(() => {
  const context = { want: 'length' as const, units: parts.units, lookup: () => undefined }
  return evaluateFormula(toleranceText.value, context)
})
const wrong = computed(() => {
  const result = tolerance.value
  if (!result.ok) return `${result.problem.message} ${result.problem.mend}`
  return result.value >= FINEST && result.value <= COARSEST
    ? ''
    : 'A tolerance lies between 0.001 and 10 mm.'
})
const turned = computed(
  () => parts.state?.bodies.some((b) => b.section.regions.length > 0) === true,
)
const kernelNeeded = computed(() => parts.state !== undefined && needsKernel(parts.state))
/** What the kernel built at the tolerance that is typed; undefined while it has not. */
const built = shallowRef<BuiltGeometry>()
const building = ref(false)
watchDebounced(
  [() => parts.part, tolerance],
  async () => {
    const { part, state } = parts
    const result = tolerance.value
    built.value = undefined
    if (!state || !kernelNeeded.value || !result.ok || wrong.value) return
    building.value = true
    const answer = await geometryFor(state, result.value)
    if (part !== parts.part || result !== tolerance.value) return
    building.value = false
    if (answer.ok) built.value = answer.value
    else tellProblem(answer.problem)
  },
  { debounce: 300, immediate: true },
)
/** Threads are cut into the triangles, for print and picture; kept while the view is open. */
const cutsThreads = ref(false)
const threads = computed(() => (parts.state ? threadsToCut(parts.state) : { cut: 0, plain: 0 }))
const triangles = computed(() => {
  const { state } = parts
  const result = tolerance.value
  if (!state || !result.ok || wrong.value) return 0
  const bodies = meshedBodies(state, result.value, built.value, cutsThreads.value)
  return bodies.reduce((sum, b) => sum + b.mesh.indices.length / 3, 0)
})
/** Where triangles touch themselves; looked for once nothing changes, since it takes a moment. */
const touches = ref<readonly string[]>([])
watchDebounced(
  [() => parts.part, tolerance, built],
  () => {
    const { state } = parts
    const result = tolerance.value
    const isKnown = state && result.ok && !wrong.value
    touches.value = isKnown ? touchWords(state, result.value, built.value) : []
  },
  { debounce: 400, immediate: true },
)
const exact = EXPORTERS.filter((e) => !e.triangles)
const meshed = EXPORTERS.filter((e) => e.triangles)

const isReady = (exporter: Exporter): boolean =>
  exporter.of === 'document' ||
  (turned.value &&
    (!exporter.triangles || !wrong.value) &&
    (exporter.of !== 'solids' || !kernelNeeded.value || built.value !== undefined))

async function save(exporter: Exporter): Promise<void> {
  const { state } = parts
  if (!state) return
  if (exporter.drawn) {
    await saveDrawn(exporter)
    return
  }
  const used = tolerance.value.ok ? tolerance.value.value : EXPORT_CHORD_TOLERANCE
  const made = exporter.write(state, {
    ...{ tolerance: used, at: new Date(), cutsThreads: cutsThreads.value },
    ...(built.value ? { built: built.value } : {}),
  })
  if (made.ok) saveFile(made.value, `${state.part.name}.${exporter.extension}`, exporter.type)
  else tellProblem(made.problem)
}
</script>

<template>
  <main class="dispatch">
    <h1>Files of {{ parts.name }}</h1>
    <p v-if="!turned" class="wrong" role="status">
      Nothing is turned yet: revolve a closed profile first. The part file keeps what is drawn.
    </p>
    <h2 class="group">Exact</h2>
    <section v-for="e in exact" :key="e.id" :aria-label="e.name">
      <div>
        <h3>{{ e.name }}</h3>
        <p>{{ e.about }}</p>
      </div>
      <span class="figure soft">.{{ e.extension }}</span>
      <Button type="primary" :disabled="!isReady(e)" @click="save(e)">Download</Button>
    </section>
    <h2 class="group">Triangles</h2>
    <div class="settings">
      <label class="tolerance">
        <span>Chord tolerance</span>
        <input
          v-model="toleranceText"
          class="figure"
          aria-label="Chord tolerance"
          :aria-invalid="wrong !== ''"
          aria-describedby="tolerance-note"
        />
        <span class="figure soft">{{ parts.units.length }}</span>
      </label>
      <label v-if="threads.cut > 0" class="threads">
        <input v-model="cutsThreads" type="checkbox" />
        <span>Cut threads, for print and picture</span>
      </label>
      <p v-if="wrong" id="tolerance-note" class="wrong" role="alert">{{ wrong }}</p>
      <p v-else-if="turned" id="tolerance-note" class="figure soft">
        {{ building ? 'building the solid …' : `${triangles.toLocaleString('en')} triangles` }}
      </p>
    </div>
    <p v-if="cutsThreads && threads.plain > 0" class="soft" role="status">
      Threads on bodies that are no full turn stay plain.
    </p>
    <p v-for="words in touches" :key="words" class="wrong touches" role="status">{{ words }}</p>
    <section v-for="e in meshed" :key="e.id" :aria-label="e.name">
      <div>
        <h3>{{ e.name }}</h3>
        <p>{{ e.about }}</p>
      </div>
      <span class="figure soft">.{{ e.extension }}</span>
      <Button type="primary" :disabled="!isReady(e)" @click="save(e)">Download</Button>
    </section>
  </main>
</template>

<style scoped>
.touches {
  margin: 8px 0 12px;
}

.dispatch {
  flex: 1;
  min-height: 0;
  width: 100%;
  max-width: 760px;
  margin: 0 auto;
  padding: 28px 24px;
  overflow: auto;
}

h1 {
  margin-bottom: 16px;
  font-size: 17px;
  font-weight: 600;
}

section {
  display: grid;
  grid-template-columns: 1fr auto auto;
  align-items: center;
  gap: 18px;
  padding: 11px 18px;
  margin-bottom: 8px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--panel);
}

h3 {
  margin: 0;
  font-size: 14px;
}

.group {
  margin: 18px 0 8px;
  color: var(--ink-soft);
  font-size: 12px;
  text-transform: uppercase;
  letter-spacing: 0.06em;
}

.settings {
  display: flex;
  align-items: center;
  gap: 18px;
  margin-bottom: 10px;
}

.tolerance,
.threads {
  display: flex;
  align-items: center;
  gap: 8px;
}

.tolerance input {
  width: 90px;
  height: 28px;
  padding: 0 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
}

.threads input {
  accent-color: var(--accent);
}

.wrong {
  color: var(--conflict);
}
</style>
