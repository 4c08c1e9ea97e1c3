<script setup lang="ts">
import type { CornerPick, Step } from '@lathica/core/part'
import { cornerWords, solidEdgeWords, type BodyState } from '@lathica/core/route'
import { changeStep } from '@lathica/core/edit'
import { computed } from 'vue'
import { refsCalled, type SectionRef } from '../../board/refs'
import { askForCorners } from '../../commands/makeStep'
import { useBoardStore } from '../../store/board'
import { usePartStore } from '../../store/part'
import { useRouteStore } from '../../store/route'
import PlainSelect from '../../ui/PlainSelect.vue'

/** The circular edges that a set of a fillet or chamfer takes: picked, or by rule. */
const props = defineProps<{
  id: string
  step: Step
  set: number
  pick: CornerPick
  bodies: readonly BodyState[]
}>()
const parts = usePartStore()
const board = useBoardStore()
const route = useRouteStore()

const options = computed(() => {
  const { part } = parts
  const at = part?.route.findIndex((s) => s.id === props.step.id) ?? 0
  return [
    { value: 'corners', label: 'those picked' },
    { value: 'inside', label: 'all inside' },
    { value: 'outside', label: 'all outside' },
    ...(part?.route.slice(0, at) ?? []).map((s) => ({
      value: `step:${s.id}`,
      label: `all of ${s.number} ${s.kind}`,
    })),
  ]
})
const rule = computed(() => {
  if (props.pick.kind === 'step') return `step:${props.pick.step}`
  return props.pick.kind === 'solid' ? 'corners' : props.pick.kind
})
interface Chosen {
  readonly key: string
  readonly ref: SectionRef | undefined
  readonly words: string
  readonly isGone: boolean
}
const chosen = computed<Chosen[]>(() => {
  const { pick } = props
  if (pick.kind === 'solid') {
    // Whether they are there the kernel tells, which fails the step.
    return pick.edges.map((key) => {
      const { route: steps, units } = parts
      const words = solidEdgeWords(key, { route: steps, units }, props.bodies)
      return { key, ref: undefined, words, isGone: false }
    })
  }
  if (pick.kind !== 'corners') return []
  return pick.corners.map((key) => {
    const [ref] = refsCalled(props.bodies, [key])
    const words = ref?.corner ? cornerWords(ref.corner, parts.units) : 'gone'
    return { key, ref, words, isGone: !ref }
  })
})

function choose(value: string): void {
  if (value === 'corners') take({ kind: 'corners', corners: [] })
  else if (value === 'inside' || value === 'outside') take({ kind: value })
  else take({ kind: 'step', step: value.slice('step:'.length) })
}

function take(pick: CornerPick): void {
  parts.run(
    changeStep(props.step.id, (s) => {
      if (s.kind !== 'fillet' && s.kind !== 'chamfer') return s
      return { ...s, sets: s.sets.map((x, i) => (i === props.set ? { ...x, pick } : x)) } as Step
    }),
  )
}

function drop(key: string): void {
  const { pick } = props
  if (pick.kind === 'solid') take({ kind: 'solid', edges: pick.edges.filter((k) => k !== key) })
  if (pick.kind !== 'corners') return
  take({ kind: 'corners', corners: pick.corners.filter((k) => k !== key) })
}
</script>

<template>
  <PlainSelect :id="id" :model-value="rule" :options="options" @update:model-value="choose" />
  <ul v-if="pick.kind === 'corners' || pick.kind === 'solid'" class="corners">
    <li
      v-for="c in chosen"
      :key="c.key"
      :class="{ gone: c.isGone }"
      @pointerenter="route.hoverRef = c.ref"
      @pointerleave="route.hoverRef = undefined"
    >
      <span class="figure">{{ c.words }}</span>
      <button type="button" class="plain" :aria-label="`let go of ${c.words}`" @click="drop(c.key)">
        ×
      </button>
    </li>
    <li>
      <button
        type="button"
        class="plain pick"
        :aria-pressed="route.ask !== undefined"
        @click="route.ask ? board.useTool('pick') : askForCorners(step.id, set)"
      >
        {{ route.ask ? 'picking …' : 'pick edges' }}
      </button>
    </li>
  </ul>
</template>

<style scoped src="./picks.css"></style>

<style scoped>
.corners {
  margin: 3px 0 0;
  padding: 0;
  list-style: none;
  font-size: 12px;
}

.corners li {
  display: flex;
  justify-content: space-between;
}
</style>
