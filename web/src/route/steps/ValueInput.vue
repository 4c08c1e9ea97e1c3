<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import type { Measure } from '@lathica/core/units'
import { ref, watch } from 'vue'
import { escape } from '../../commands/escape'
import { usePartStore } from '../../store/part'
import { turnedFigure } from '../../ui/turnFigure'
import { undoFromField } from './fieldUndo'

/** A formula in a step's card: shown while it is typed, taken by Enter, Tab or leaving the field. */
const props = defineProps<{
  id: string
  label: string
  want: Measure
  text: string
  sign?: string | undefined
  /** What an empty field means. */
  empty?: string | undefined
  fault: (text: string, want: Measure) => Problem | undefined
  take: (text: string) => Problem | undefined
}>()
const emit = defineEmits<{ typed: [text: string]; left: []; done: [] }>()
const parts = usePartStore()
const typed = ref(props.text)
const problem = ref<Problem>()
watch(
  () => props.text,
  (text) => {
    typed.value = text
    problem.value = undefined
  },
)

const unit = (): string => {
  if (props.want === 'length') return parts.units.length
  return props.want === 'angle' ? parts.units.angle : ''
}

function faultOf(text: string): Problem | undefined {
  if (text.trim() !== '') return props.fault(text, props.want)
  if (props.empty !== undefined) return undefined
  return { code: 'step.empty', message: 'A value is needed here.', mend: 'Type one.' }
}

function onInput(): void {
  isTaken = false
  problem.value = undefined
  if (faultOf(typed.value) === undefined) emit('typed', typed.value)
  else emit('left')
}

function takeTyped(): boolean {
  if (typed.value === props.text) {
    problem.value = undefined
    emit('left')
    return true
  }
  problem.value = faultOf(typed.value) ?? props.take(typed.value.trim())
  return problem.value === undefined
}

function onEscape(): void {
  if (typed.value === props.text) {
    escape()
    return
  }
  typed.value = props.text
  problem.value = undefined
  emit('left')
}

function turn(by: 1 | -1, event: KeyboardEvent): void {
  typed.value = turnedFigure(typed.value, by, event)
  onInput()
}

/** Enter takes what was typed; once more, and one is done. */
let isTaken = false
function onEnter(event: KeyboardEvent): void {
  if (isTaken && typed.value === props.text) {
    emit('done')
    return
  }
  isTaken = takeTyped()
  if (isTaken) (event.target as HTMLInputElement).select()
}
</script>

<template>
  <span class="value" :class="{ wrong: problem }">
    <span v-if="sign" class="soft figure" aria-hidden="true">{{ sign }}</span>
    <input
      :id="id"
      v-model="typed"
      class="figure"
      autocomplete="off"
      spellcheck="false"
      :placeholder="empty"
      :aria-label="label"
      :aria-invalid="problem !== undefined"
      @input="onInput"
      @focus="isTaken = false"
      @blur="takeTyped"
      @keydown.enter.prevent="onEnter"
      @keydown.esc.stop.prevent="onEscape"
      @keydown.up.stop.prevent="turn(1, $event)"
      @keydown.down.stop.prevent="turn(-1, $event)"
      @keydown.stop="undoFromField($event, typed === text)"
    />
    <span class="soft figure" aria-hidden="true">{{ unit() }}</span>
  </span>
  <span v-if="problem" class="fault" role="alert">
    <strong>{{ problem.message }}</strong> {{ problem.mend }}
  </span>
</template>

<style scoped src="../../ui/valueField.css"></style>

<style scoped>
.fault {
  display: block;
  margin-top: 3px;
  font-size: 12px;
}

.fault strong {
  color: var(--conflict);
}
</style>
