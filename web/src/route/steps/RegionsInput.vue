<script setup lang="ts">
import { isEndSketch } from '@lathica/core/sketch'
import { halfPlane } from '@lathica/core/solid'
import type { ExtrudeStep, RevolveStep, Step } from '@lathica/core/part'
import { changeStep } from '@lathica/core/edit'
import { computed } from 'vue'
import { useBoardStore } from '../../store/board'
import { usePartStore } from '../../store/part'
import { useRouteStore } from '../../store/route'

/** Which areas of a profile a step is made from: all it encloses, or those clicked on the board. */
const props = defineProps<{ step: RevolveStep | ExtrudeStep }>()
const parts = usePartStore()
const board = useBoardStore()
const route = useRouteStore()

const areas = computed(() => parts.state?.sketches.get(props.step.sketch)?.profile.areas())
const all = computed(() => areas.value?.all ?? [])
const usual = computed(() => [...all.value.keys()].filter((i) => all.value[i]?.solid))
const chosen = computed((): readonly number[] => {
  const { regions } = props.step
  return regions === 'all' ? usual.value : [...(areas.value?.meant(regions) ?? [])]
})
const picking = computed(() => route.ask?.accept === 'region')

function toggle(area: number): void {
  const next = chosen.value.includes(area)
    ? chosen.value.filter((i) => i !== area)
    : [...chosen.value, area].sort((a, b) => a - b)
  if (next.length === 0) return
  const isUsual = next.join() === usual.value.join()
  const regions = isUsual ? 'all' : next.map((i) => [...(all.value[i]?.key ?? [])])
  parts.run(changeStep(props.step.id, (s) => ({ ...s, regions }) as Step))
}

function ask(): void {
  if (picking.value) {
    board.useTool('pick')
    return
  }
  const sketch = parts.part?.sketches.find((s) => s.id === props.step.sketch)
  const isHalf = !sketch || !isEndSketch(sketch)
  board.startAsking({
    hint: 'Click regions of the profile, on the board or the solid, to take them in or leave them out; Enter is done.',
    accept: 'region',
    bodies: () => [],
    areas: () => ({
      regions: all.value.map((a) => a.region),
      frame: isHalf ? halfPlane(0) : undefined,
      mirrored: isHalf,
    }),
    chosen: () => chosen.value.map(String),
    take: ({ key }) => toggle(Number(key)),
  })
}
</script>

<template>
  <span v-if="all.length < 2">all closed regions</span>
  <span v-else>
    {{ chosen.length }} of {{ all.length }}
    <button type="button" class="plain pick" :aria-pressed="picking" @click="ask">
      {{ picking ? 'picking …' : 'pick' }}
    </button>
  </span>
</template>

<style scoped src="./picks.css"></style>
