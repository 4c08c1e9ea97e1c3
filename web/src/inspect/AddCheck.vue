<script setup lang="ts">
import { BODY_FIGURES, PLAY_FIGURES, type Figure } from '@lathica/core/part'
import { addChecks } from '@lathica/core/edit'
import { figureWord, unitOfFigure } from '@lathica/core/inspect'
import { computed, nextTick, ref } from 'vue'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'

/** Puts a figure of a body, of two bodies or of a vessel into the sheet. */
const parts = usePartStore()
const inspect = useInspectStore()
const chosen = ref('')

const groups = computed(() => {
  const word = (kind: Figure['kind']) => ({ kind, label: figureWord(kind, parts.lie) })
  return [
    { name: 'of the part or a body', kinds: BODY_FIGURES.map(word) },
    { name: 'of a vessel', kinds: [word('capacity')] },
    ...(parts.bodies.length > 1
      ? [{ name: 'of a body in another', kinds: PLAY_FIGURES.map(word) }]
      : []),
  ]
})

function figureOf(kind: Figure['kind']): Figure {
  const [first, second] = parts.bodies
  if (kind === 'capacity')
    return { kind, body: inspect.body?.bodyId ?? first?.id ?? '', height: '' }
  if ((PLAY_FIGURES as readonly string[]).includes(kind)) {
    return { kind, body: second?.id ?? '', other: first?.id ?? '' } as Figure
  }
  return { kind, body: '' } as Figure
}

async function add(): Promise<void> {
  const kind = chosen.value as Figure['kind']
  const { part } = parts
  chosen.value = ''
  if (!part) return
  const figure = figureOf(kind)
  if (!parts.run(addChecks([{ figure, unit: unitOfFigure(kind, part).name }]))) return
  inspect.rowId = parts.part?.checks.at(-1)?.id
  await nextTick()
  document.querySelector<HTMLElement>('.check-form [data-first]')?.focus()
  document.querySelector('.check-form')?.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <select v-model="chosen" class="plain-select" aria-label="Add to the sheet" @change="add">
    <option value="" disabled>add …</option>
    <optgroup v-for="g in groups" :key="g.name" :label="g.name">
      <option v-for="k in g.kinds" :key="k.kind" :value="k.kind">{{ k.label }}</option>
    </optgroup>
  </select>
</template>

<style scoped src="../ui/plainSelect.css"></style>

<style scoped>
.plain-select {
  width: 104px;
}
</style>
