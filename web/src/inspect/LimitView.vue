<script setup lang="ts">
import { tolerancedIn, withValuesOff, type Variation } from '@lathica/core/vary'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { tellProblem } from '../notices'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'
import { vary, type Job } from '../vary/client'

/**
 * Shows the part with its values at limits, as they are or blown up: where a figure is least or greatest, at its least
 * or most material, or at any mix.
 */
const props = defineProps<{ variation: Variation | undefined }>()
const parts = usePartStore()

type Which = 'drawn' | 'low' | 'high' | 'leastMaterial' | 'mostMaterial' | 'mix'
const options = computed(() => [
  { value: 'drawn' as const, label: 'as drawn' },
  ...(props.variation
    ? [
        { value: 'low' as const, label: 'where it is least' },
        { value: 'high' as const, label: 'where it is greatest' },
      ]
    : []),
  { value: 'leastMaterial' as const, label: 'at least material' },
  { value: 'mostMaterial' as const, label: 'at most material' },
  { value: 'mix' as const, label: 'at a mix of limits' },
])
const TIMES = ['1', '10', '30', '100'].map((value) => ({
  value,
  label: value === '1' ? 'as it is' : `${value} times as far off`,
}))
const which = ref<Which>('drawn')
const times = ref('10')

const toleranced = computed(() => (parts.history ? tolerancedIn(parts.history.part) : []))
/** For a mix: which limit each value is at; those left out are as drawn. */
const mix = ref<Record<string, 'least' | 'greatest' | 'drawn'>>({})
const LIMITS = [
  { value: 'drawn' as const, label: 'as drawn' },
  { value: 'least' as const, label: 'least' },
  { value: 'greatest' as const, label: 'greatest' },
]

/** The limits at which the volume of the part is least and greatest; worked out once it is asked for. */
const material = shallowRef<Variation['corners']>()
let running: Job<Variation> | undefined
const isBusy = ref(false)
async function findMaterial(): Promise<void> {
  const part = parts.history?.part
  if (!part || running) return
  const own = vary(part, { kind: 'volume', body: '' }, () => undefined)
  running = own
  isBusy.value = true
  const answer = await own.answer
  if (running !== own) return
  running = undefined
  isBusy.value = false
  if (answer?.ok === false) {
    tellProblem(answer.problem)
    which.value = 'drawn'
  } else material.value = answer?.value.corners
}

/** Of a mix, by how much each value is off. */
const mixed = (): ReadonlyMap<string, number> =>
  new Map(
    toleranced.value.map(({ id, upper, lower }) => {
      const at = mix.value[id] ?? 'drawn'
      return [id, at === 'drawn' ? 0 : at === 'least' ? lower : upper]
    }),
  )
const off = computed(() =>
  ({
    drawn: () => undefined,
    low: () => props.variation?.corners.low,
    high: () => props.variation?.corners.high,
    leastMaterial: () => material.value?.low,
    mostMaterial: () => material.value?.high,
    mix: mixed,
  })[which.value](),
)

let isShown = false
function show(): void {
  const { history } = parts
  if (!off.value || !history) {
    if (isShown) parts.preview = undefined
    isShown = false
    return
  }
  const factor = Number(times.value)
  const moved = [...off.value].map(([id, by]) => [id, by * factor] as const)
  parts.preview = withValuesOff(history.part, new Map(moved))
  isShown = true
}
watch([off, times], show)
watch(which, (now) => {
  if ((now === 'leastMaterial' || now === 'mostMaterial') && !material.value) void findMaterial()
})
// Another part or figure has other limits.
watch(
  () => props.variation,
  () => {
    if (which.value === 'low' || which.value === 'high') which.value = 'drawn'
  },
)
watch(
  () => parts.history?.part,
  () => {
    running?.end()
    running = undefined
    isBusy.value = false
    material.value = undefined
    which.value = 'drawn'
  },
)
onBeforeUnmount(() => {
  running?.end()
  which.value = 'drawn'
  if (isShown) parts.preview = undefined
})
</script>

<template>
  <div class="line" role="group" aria-label="The part at its limits">
    <label for="limit-which">Shown</label>
    <PlainSelect id="limit-which" v-model="which" :options="options" />
    <PlainSelect
      v-if="which !== 'drawn'"
      id="limit-times"
      v-model="times"
      aria-label="how far off it is shown"
      :options="TIMES"
    />
  </div>
  <p v-if="isBusy" role="status">Working out where it has that …</p>
  <div v-if="which === 'mix'" class="mix">
    <template v-for="t in toleranced" :key="t.id">
      <label :for="`mix-${t.id}`">{{ t.words }}</label>
      <PlainSelect
        :id="`mix-${t.id}`"
        :model-value="mix[t.id] ?? 'drawn'"
        :options="LIMITS"
        @update:model-value="mix[t.id] = $event"
      />
    </template>
  </div>
</template>

<style scoped>
.line,
.mix {
  display: grid;
  grid-template-columns: 92px 1fr 1fr;
  gap: 8px;
  align-items: center;
  margin: 8px 0;
}

.mix {
  grid-template-columns: 1fr 130px;
  max-height: 240px;
  overflow: auto;
}
</style>
