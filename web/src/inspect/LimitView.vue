<script setup lang="ts">
import { withValuesOff, type Variation } from '@lathica/core/vary'
import { onBeforeUnmount, ref, watch } from 'vue'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

/** Shows the part with its values at the limits at which a figure is least or greatest, as it is or blown up. */
const props = defineProps<{ variation: Variation }>()
const parts = usePartStore()

const WHICH = [
  { value: 'drawn' as const, label: 'as drawn' },
  { value: 'low' as const, label: 'where it is least' },
  { value: 'high' as const, label: 'where it is greatest' },
]
const TIMES = ['1', '10', '30', '100'].map((value) => ({
  value,
  label: value === '1' ? 'as it is' : `${value} times as far off`,
}))
const which = ref<'drawn' | 'low' | 'high'>('drawn')
const times = ref('10')

let isShown = false
function show(): void {
  const { history } = parts
  if (which.value === 'drawn' || !history) {
    if (isShown) parts.preview = undefined
    isShown = false
    return
  }
  const factor = Number(times.value)
  const off = [...props.variation.corners[which.value]].map(
    ([id, by]) => [id, by * factor] as const,
  )
  parts.preview = withValuesOff(history.part, new Map(off))
  isShown = true
}
watch([which, times], show)
// Another part or figure has other limits.
watch(
  () => props.variation,
  () => (which.value = 'drawn'),
)
onBeforeUnmount(() => {
  which.value = 'drawn'
  show()
})
</script>

<template>
  <div class="line" role="group" aria-label="The part at its limits">
    <label for="limit-which">Shown</label>
    <PlainSelect id="limit-which" v-model="which" :options="WHICH" />
    <PlainSelect
      v-if="which !== 'drawn'"
      id="limit-times"
      v-model="times"
      aria-label="how far off it is shown"
      :options="TIMES"
    />
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 92px 1fr 1fr;
  gap: 8px;
  align-items: center;
  margin: 8px 0;
}
</style>
