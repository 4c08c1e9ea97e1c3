<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import { formatLength, type Measure } from '@lathica/core/units'
import { splinePieces, type Fitted } from '@lathica/core/geometry'
import { perform, type Command } from '@lathica/core/edit'
import { locator, splineOf, type Sketch, type SketchSpline } from '@lathica/core/sketch'
import { onBeforeUnmount, ref } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import ValueInput from './steps/ValueInput.vue'
import { useTyped } from './steps/typed'

/**
 * A figure by which a free curve gets another shape: the shape is shown while the figure is typed or turned up and down,
 * with how far it departs from the one there is.
 */
const props = defineProps<{
  id: string
  label: string
  want: Measure
  text: string
  empty?: string
  /** The curve as it stands, whatever is shown of it meanwhile. */
  own: { readonly sketch: Sketch; readonly curve: SketchSpline }
  /** The figure in mm, or as a number. */
  make: (figure: number) => Command
  fit: (sketch: Sketch, curve: SketchSpline, figure: number) => Fitted | undefined
}>()
const board = useBoardStore()
const parts = usePartStore()
const { read, fault } = useTyped()
const departs = ref('')

/** Shows the curve as the typed figure makes it; nothing where it would be refused. */
let isShowing = false
function show(text: string): void {
  leave()
  const figure = read(text, props.want)
  const { history } = parts
  if (!history || !figure.ok) return
  const made = perform(history.part, props.make(figure.value))
  const { sketch, curve } = props.own
  const fitted = made.ok ? props.fit(sketch, curve, figure.value) : undefined
  if (!made.ok || !fitted) return
  parts.preview = made.value
  const pieces = splinePieces(splineOf(curve, locator(sketch)))
  board.cardOverlay = { band: { pieces, by: fitted.deviation }, mark: fitted.at }
  isShowing = true
  departs.value = `departs by ${formatLength(fitted.deviation, parts.units)} ${parts.units.length}`
}

function leave(): void {
  departs.value = ''
  if (!isShowing) return
  parts.preview = undefined
  board.cardOverlay = undefined
  isShowing = false
}
onBeforeUnmount(leave)

function take(text: string): Problem | undefined {
  leave()
  if (text === '') return undefined
  const figure = read(text, props.want)
  if (!figure.ok) return figure.problem
  const result = parts.attempt(props.make(figure.value))
  return result.ok ? undefined : result.problem
}
</script>

<template>
  <label :for="id">{{ label }}</label>
  <span class="reshape">
    <ValueInput
      :id="id"
      :label="label"
      :want="want"
      :text="text"
      :empty="empty"
      :fault="fault"
      :take="take"
      @typed="show"
      @left="leave"
    />
    <span v-if="departs" class="soft" role="status">{{ departs }}</span>
  </span>
</template>

<style scoped src="../ui/valueField.css"></style>
<style scoped>
label {
  color: var(--ink-soft);
}
</style>
