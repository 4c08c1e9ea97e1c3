<script setup lang="ts">
import { formatLength, formatMass } from '@lathica/core/units'
import { checkStates, overallOf, summaryOf } from '@lathica/core/inspect'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { useLimitsStore } from '../store/limits'
import { useMeasuresStore } from '../store/measures'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import { useFreeMotion } from './useFreeMotion'

/** What the next click does, where the board's tool does not say. */
const props = defineProps<{ hint?: string }>()
const parts = usePartStore()
const route = useRouteStore()
const board = useBoardStore()
const limits = useLimitsStore()
// What checks ask of solids is measured whichever screen is open.
useMeasuresStore()

const motion = useFreeMotion()
const overall = computed(() => overallOf({ bodies: route.followed }))
const hint = computed(() =>
  props.hint !== undefined
    ? props.hint
    : board.field
      ? 'Type a number or a formula; click another size to link to it, Alt and click for its value once.'
      : (board.toolState?.hint ?? ''),
)
const freedoms = computed(() => {
  if (props.hint !== undefined || board.isBlank) return ''
  const n = board.freedoms
  return n === 0 ? 'in ink' : n === 1 ? '1 freedom left' : `${n} freedoms left`
})
const trouble = computed(() => {
  const failed = parts.state?.steps.filter((s) => s.status === 'failed').length ?? 0
  const conflict = board.sketchState?.solution.disagreements.some((d) => d.kind === 'conflict')
  if (conflict === true) return 'sizes disagree'
  if (failed > 0) return failed === 1 ? '1 step fails' : `${failed} steps fail`
  return ''
})
const size = computed(() => {
  if (!overall.value) return ''
  const { diameter, length } = overall.value
  return `⌀${formatLength(diameter, parts.units)} × ${formatLength(length, parts.units)}`
})
const mass = computed(() => {
  if (!overall.value) return ''
  return Number.isNaN(overall.value.mass) ? '…' : formatMass(overall.value.mass, parts.units)
})

const checks = computed(() => {
  const { followed } = parts
  if (!followed || followed.part.checks.length === 0) return undefined
  // While something is dragged, limits are those of the part as it was last.
  const states = followed === parts.state ? limits.states : checkStates(followed)
  const { passing, targets, failing, open } = summaryOf(states)
  if (targets === 0) return undefined
  const mark = failing > 0 ? '✕' : open > 0 ? '?' : '✓'
  return { text: `${mark} ${passing} of ${targets} checks`, fails: failing > 0 }
})

function showTrouble(): void {
  board.picks = []
  const failed = parts.state?.steps.find((s) => s.status === 'failed')
  const conflict = board.sketchState?.solution.disagreements.length ?? 0
  board.stepId = conflict > 0 ? undefined : failed?.stepId
}
</script>

<template>
  <footer class="bottom">
    <span class="hint">{{ hint }}</span>
    <button v-if="trouble" type="button" class="plain trouble" @click="showTrouble">
      <b aria-hidden="true">△</b> {{ trouble }}
    </button>
    <button
      v-if="freedoms"
      type="button"
      class="plain freedoms"
      data-figure="freedoms"
      title="Shows what can still move"
      @pointerenter="motion.start"
      @pointerleave="motion.stop"
      @focus="motion.start"
      @blur="motion.stop"
      @click="showTrouble"
    >
      {{ freedoms }}
    </button>
    <span class="figure" data-figure="size">{{ size }}</span>
    <span class="figure" data-figure="mass">{{ mass }}</span>
    <RouterLink
      v-if="checks"
      class="checks"
      :class="{ fails: checks.fails }"
      :to="{ name: 'inspect' }"
      data-figure="checks"
      title="The inspection sheet"
    >
      {{ checks.text }}
    </RouterLink>
  </footer>
</template>

<style scoped>
.bottom {
  display: flex;
  align-items: center;
  gap: 20px;
  flex: none;
  height: 28px;
  padding: 0 14px;
  border-top: 1px solid var(--rule);
  background: var(--panel);
  white-space: nowrap;
}

.hint {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--ink-soft);
}

.freedoms {
  padding: 0 2px;
  color: inherit;
}

.checks {
  color: var(--accent-deep);
  font-weight: 600;
  text-decoration: none;
}

.checks:hover {
  text-decoration: underline;
}

.checks.fails {
  color: var(--conflict);
}

.trouble {
  color: var(--conflict);
  font-weight: 600;
}
</style>
