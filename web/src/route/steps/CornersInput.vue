<script setup lang="ts">
import { changeStep, cornerWords, type BodyState, type CornerPick, type Step } from '@lathica/core'
import { computed } from 'vue'
import { refsCalled } from '../../board/refs'
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
const rule = computed(() =>
  props.pick.kind === 'step' ? `step:${props.pick.step}` : props.pick.kind,
)
const chosen = computed(() =>
  props.pick.kind !== 'corners'
    ? []
    : props.pick.corners.map((key) => {
        const [ref] = refsCalled(props.bodies, [key])
        return { key, ref, words: ref?.corner ? cornerWords(ref.corner, parts.units) : 'gone' }
      }),
)

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
  if (props.pick.kind !== 'corners') return
  take({ kind: 'corners', corners: props.pick.corners.filter((k) => k !== key) })
}
</script>

<template>
  <PlainSelect :id="id" :model-value="rule" :options="options" @update:model-value="choose" />
  <ul v-if="pick.kind === 'corners'" class="corners">
    <li
      v-for="c in chosen"
      :key="c.key"
      :class="{ gone: !c.ref }"
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
