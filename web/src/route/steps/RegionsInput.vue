<script setup lang="ts">
import { changeStep, regionEntities, type RevolveStep, type Step } from '@lathica/core'
import { computed } from 'vue'
import { useBoardStore } from '../../store/board'
import { usePartStore } from '../../store/part'
import { useRouteStore } from '../../store/route'

/** Which closed regions of a profile are turned: all, or those clicked on the board. */
const props = defineProps<{ step: RevolveStep }>()
const parts = usePartStore()
const board = useBoardStore()
const route = useRouteStore()

const section = computed(
  () => parts.state?.sketches.get(props.step.sketch)?.profile.section ?? { regions: [] },
)
const own = computed(() => section.value.regions.map((r) => regionEntities(r)))
/** The regions that are turned, by their numbers. */
const chosen = computed(() => {
  const { regions } = props.step
  return own.value.flatMap((entities, i) => {
    if (regions === 'all') return [i]
    const has = regions.some((l) => 2 * l.filter((id) => entities.includes(id)).length > l.length)
    return has ? [i] : []
  })
})
const picking = computed(() => route.ask?.accept === 'region')

function toggle(region: number): void {
  const next = chosen.value.includes(region)
    ? chosen.value.filter((i) => i !== region)
    : [...chosen.value, region]
  if (next.length === 0) return
  const regions = next.length === own.value.length ? 'all' : next.map((i) => own.value[i] ?? [])
  parts.run(changeStep(props.step.id, (s) => ({ ...s, regions }) as Step))
}

function ask(): void {
  if (picking.value) {
    board.useTool('pick')
    return
  }
  board.startAsking({
    hint: 'Click regions of the profile to turn them or leave them out; Enter is done.',
    accept: 'region',
    bodies: () => [],
    regions: () => section.value,
    chosen: () => chosen.value.map(String),
    take: ({ key }) => toggle(Number(key)),
  })
}
</script>

<template>
  <span v-if="own.length < 2">all closed regions</span>
  <span v-else>
    {{ chosen.length }} of {{ own.length }}
    <button type="button" class="plain pick" :aria-pressed="picking" @click="ask">
      {{ picking ? 'picking …' : 'pick' }}
    </button>
  </span>
</template>

<style scoped src="./picks.css"></style>
