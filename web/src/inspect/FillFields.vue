<script setup lang="ts">
import { formatLength } from '@lathica/core/units'
import { usualUnit } from '@lathica/core/units/shown'
import { evaluateFormula } from '@lathica/core/formula'
import { valuesOf } from '@lathica/core/part'
import { heightFor, tellFigures, tellValue } from '@lathica/core/inspect'
import { computed, ref } from 'vue'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'

/** How high a vessel is filled, and what that is: either may be typed, and gives the other. */
const parts = usePartStore()
const inspect = useInspectStore()
const problem = ref('')
const volumeUnit = computed(() => usualUnit('volume', parts.units))

const height = computed({
  get: () => inspect.fill,
  set: (text: string) => {
    problem.value = ''
    inspect.fill = text
  },
})
const heightProblem = computed(() => {
  const { filled } = inspect
  if (!filled) return ''
  if ('problem' in filled && filled.problem)
    return `${filled.problem.message} ${filled.problem.mend}`
  if ('asked' in filled && (filled.asked ?? 0) > (filled.height ?? 0) + 1e-9) {
    return inspect.cavity?.opening === undefined
      ? 'That is over the brim.'
      : 'It runs out before that.'
  }
  return 'asked' in filled && (filled.asked ?? 0) < 0 ? 'A height is not below zero.' : ''
})
const volume = computed(() => {
  const { filled } = inspect
  return filled && 'volume' in filled && filled.volume !== undefined
    ? tellFigures(filled.volume, volumeUnit.value)
    : ''
})
const brim = computed(() => {
  const { cavity } = inspect
  if (!cavity) return ''
  const step = parts.part?.route.find((s) => s.id === cavity.opening)?.number
  const top = cavity.closed
    ? 'full'
    : step === undefined
      ? 'to the brim'
      : `runs out through step ${step}`
  return `${top}: ${tellValue(cavity.volume, volumeUnit.value)} at ${formatLength(cavity.brim - cavity.floor, parts.units)} ${parts.units.length}`
})

function takeVolume(event: Event): void {
  const input = event.target as HTMLInputElement
  const { part } = parts
  if (!part || !inspect.cavity || input.value.trim() === '') return
  const { lookup } = valuesOf(part).table
  const context = {
    want: 'volume' as const,
    units: part.units,
    bare: volumeUnit.value.size,
    lookup,
  }
  const wanted = evaluateFormula(input.value, context)
  if (!wanted.ok) {
    problem.value = `${wanted.problem.message} ${wanted.problem.mend}`
    return
  }
  const found = heightFor(inspect.cavity, wanted.value)
  if (found === undefined) {
    problem.value = `It holds no more than ${tellValue(inspect.cavity.volume, volumeUnit.value)}.`
    return
  }
  problem.value = ''
  inspect.fill = formatLength(found, parts.units)
}
const wrong = computed(() => problem.value || heightProblem.value)
</script>

<template>
  <div class="filling">
    <label>
      <span>filled to</span>
      <input
        v-model="height"
        class="figure"
        aria-label="Fill height"
        :aria-invalid="wrong !== ''"
      />
      <span class="figure soft">{{ parts.units.length }}</span>
    </label>
    <label>
      <span>holds</span>
      <input
        class="figure"
        aria-label="Volume"
        :value="volume"
        @change="takeVolume"
        @keydown.enter="takeVolume"
      />
      <span class="figure soft">{{ volumeUnit.name }}</span>
    </label>
    <span class="soft figure brim">{{ brim }}</span>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.filling {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  font-size: 12px;
}

label {
  display: flex;
  align-items: center;
  gap: 6px;
}

input {
  width: 78px;
  height: 26px;
  padding: 0 6px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--paper);
}

input[aria-invalid='true'] {
  border-color: var(--conflict);
}

.brim {
  white-space: nowrap;
}

.wrong {
  width: 100%;
  color: var(--conflict);
}
</style>
