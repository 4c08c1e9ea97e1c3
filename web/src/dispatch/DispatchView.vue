<script setup lang="ts">
import {
  EXPORT_CHORD_TOLERANCE,
  evaluate,
  evaluateFormula,
  formatLength,
  latheMesh,
  writePartFile,
  writeStep,
  writeStl,
  type LatheMesh,
} from '@lathica/core'
import { Button } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { usePartStore } from '../store/part'
import { saveFile } from './saveFile'

const parts = usePartStore()
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
const meshes = computed<LatheMesh[]>(() => {
  const { part } = parts
  const result = tolerance.value
  if (!part || !result.ok || wrong.value) return []
  return evaluate(part)
    .bodies.filter((b) => b.solid)
    .map((b) => latheMesh(b.section, result.value))
})
const triangles = computed(() => meshes.value.reduce((n, m) => n + m.indices.length / 3, 0))
const stlSize = computed(() => (84 + 50 * triangles.value) / 1024)

function saveStl(): void {
  const { part } = parts
  if (part) saveFile(writeStl(meshes.value, part.name), `${part.name}.stl`, 'model/stl')
}

const turned = computed(
  () => parts.state?.bodies.filter((b) => b.section.regions.length > 0).length ?? 0,
)
function saveStep(): void {
  const { part } = parts
  const text = part && writeStep(part, new Date())
  if (part && text !== undefined) saveFile(text, `${part.name}.step`, 'model/step')
}

function savePart(): void {
  const { part } = parts
  if (part) saveFile(writePartFile(part), `${part.name}.lathica.json`, 'application/json')
}
</script>

<template>
  <main class="dispatch">
    <h1>Files of {{ parts.name }}</h1>
    <section aria-label="Part file">
      <div>
        <h2>Part file</h2>
        <p>
          Everything: the profile with its constraints and sizes, values, materials and the route.
          It opens here again, and <code>lathica inspect</code> reads it.
        </p>
      </div>
      <span class="figure soft">.lathica.json</span>
      <Button type="primary" @click="savePart">Download</Button>
    </section>
    <section aria-label="STEP">
      <div>
        <h2>STEP, ISO 10303</h2>
        <p>
          Exact solids for other programs: true planes, cylinders, cones, spheres and tori, in mm,
          every body with its name and colour, the axis along Z.
        </p>
        <p v-if="turned === 0" class="wrong">
          Nothing is turned yet: revolve a closed profile first.
        </p>
      </div>
      <span class="figure soft">.step</span>
      <Button type="primary" :disabled="turned === 0" @click="saveStep">Download</Button>
    </section>
    <section aria-label="STL">
      <div>
        <h2>STL, binary</h2>
        <p>Triangles for printing and viewing, in mm, the axis along Z.</p>
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
        <p v-if="wrong" id="tolerance-note" class="wrong" role="alert">{{ wrong }}</p>
        <p v-else-if="meshes.length === 0" class="wrong">
          Nothing is turned yet: revolve a closed profile first.
        </p>
        <p v-else id="tolerance-note" class="figure soft">
          {{ triangles.toLocaleString('en') }} triangles,
          {{ Math.ceil(stlSize).toLocaleString('en') }} KB
        </p>
      </div>
      <span class="figure soft">.stl</span>
      <Button type="primary" :disabled="meshes.length === 0" @click="saveStl">Download</Button>
    </section>
  </main>
</template>

<style scoped>
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
  padding: 16px 18px;
  margin-bottom: 12px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--panel);
}

h2 {
  font-size: 14px;
}

.tolerance {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 8px 0 4px;
}

.tolerance input {
  width: 90px;
  height: 28px;
  padding: 0 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
}

.wrong {
  color: var(--conflict);
}
</style>
