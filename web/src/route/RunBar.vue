<script setup lang="ts">
import { formatMass } from '@lathica/core/units'
import { computed, onBeforeUnmount, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import TurnButton from '../ui/TurnButton.vue'
import { stepTitle } from './kinds'

/** Goes through the route step by step, by hand or by itself, and says what each did. */
const props = defineProps<{ details: ReadonlyMap<string, string> }>()
const parts = usePartStore()
const board = useBoardStore()
const route = useRouteStore()

/** How long each step stays while the route plays, in ms. */
const LINGER = 1800

let timer: ReturnType<typeof setInterval> | undefined
watch(
  () => route.playing,
  (on) => {
    clearInterval(timer)
    if (!on) return
    // From the end it begins anew.
    if (route.shownCount >= parts.route.length) {
      route.stepId = undefined
      route.runTo = 1
    }
    timer = setInterval(() => route.runBy(1), LINGER)
  },
)
onBeforeUnmount(() => {
  clearInterval(timer)
  route.playing = false
})

// The profile a step is made from comes with it, with its sizes.
watch(
  () => route.runTo,
  () => {
    const { current } = route
    if (current) board.lookAt(current)
  },
)

const sentence = computed(() => {
  const { current, currentState } = route
  if (!current || route.openStep) return ''
  const found = parts.followed?.steps.find((s) => s.stepId === current.id)
  const what = `${current.number} ${stepTitle(current)}: ${props.details.get(current.id) ?? ''}`
  if (found?.status === 'aside') return `${what}, does nothing.`
  if (!currentState) return `${what}. It fails.`
  return `${what}. ${massWords(currentState.massChange)}`
})

function massWords(change: number): string {
  if (Number.isNaN(change)) return ''
  const mass = formatMass(Math.abs(change), parts.units)
  if (Math.abs(change) < 1e-9) return 'The mass stays as it was.'
  return change > 0 ? `It adds ${mass}.` : `It takes ${mass} away.`
}
const atStart = computed(() => route.shownCount <= 1)
const atEnd = computed(() => route.shownCount >= parts.route.length)
</script>

<template>
  <div class="run-bar" role="group" aria-label="Run the route">
    <TurnButton
      icon="stepBack"
      label="One step back"
      title="One step back (,)"
      :disabled="atStart"
      @click="route.runBy(-1)"
    />
    <TurnButton
      :icon="route.playing ? 'pause' : 'play'"
      :label="route.playing ? 'Stop' : 'Play the route'"
      :title="route.playing ? 'Stop (P)' : 'Play the route (P)'"
      @click="route.playing = !route.playing"
    />
    <TurnButton
      icon="stepOn"
      label="One step on"
      title="One step on (.)"
      :disabled="atEnd"
      @click="route.runBy(1)"
    />
  </div>
  <p v-if="sentence" class="sentence" role="status">{{ sentence }}</p>
</template>

<style scoped>
.run-bar {
  display: flex;
  gap: 1px;
}

.sentence {
  flex-basis: 100%;
  padding: 2px 0 0;
  font-size: 12px;
}
</style>
