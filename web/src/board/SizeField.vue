<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import { unitScale } from '@lathica/core/units'
import { evaluateFormula, evaluateTolerance, limitSizes } from '@lathica/core/formula'
import { measureOf, signOf, sizeWord } from '@lathica/core/constraints'
import { valuesOf } from '@lathica/core/part'
import {
  addReference,
  addSize,
  changeSize,
  measureOffer,
  removeItems,
  scaleAll,
  setReference,
} from '@lathica/core/edit'
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import type { SizeDrawing } from './sizes/layout'

const props = defineProps<{
  drawings: readonly SizeDrawing[]
  width: number
  height: number
}>()

const board = useBoardStore()
const parts = usePartStore()
const input = useTemplateRef<HTMLInputElement>('input')
const text = ref('')
const problem = shallowRef<Problem>()

const size = computed(() => {
  const { field } = board
  return field?.kind === 'size' ? board.sketch.sizes.find((s) => s.id === field.id) : undefined
})
const kind = computed(() =>
  board.field?.kind === 'new' ? board.field.offer.kind : (size.value?.kind ?? 'length'),
)
const unit = computed(() => (kind.value === 'angle' ? parts.units.angle : parts.units.length))
const label = computed(() => {
  const name = sizeWord(kind.value, board.sketch.plane)
  return size.value ? `${name} ${size.value.name}` : name
})

/** Where the field stands: over its label, but never off the pane. */
const style = computed(() => {
  const id = board.field?.kind === 'size' ? board.field.id : 'pending'
  const at = props.drawings.find((d) => d.id === id)?.label ?? {
    x: props.width / 2,
    y: props.height / 2,
  }
  const x = Math.min(Math.max(at.x, 128), Math.max(128, props.width - 128))
  const y = Math.min(Math.max(at.y, 20), Math.max(20, props.height - (problem.value ? 110 : 24)))
  return { left: `${x}px`, top: `${y}px` }
})

/** The value as it would be typed in the part's unit. */
function typed(value: number): string {
  const scaled = value / unitScale(measureOf({ kind: kind.value }), parts.units)
  return String(Number(scaled.toFixed(kind.value === 'angle' ? 2 : 3)))
}

watch(
  () => board.field,
  async (field) => {
    problem.value = undefined
    if (!field) return
    if (field.kind === 'new') text.value = typed(measureOffer(board.sketch, field.offer))
    else if (size.value && (!size.value.reference || size.value.formula !== '')) {
      text.value = size.value.formula
    } else text.value = typed(board.sketchState?.measured.get(field.id) ?? 0)
    await nextTick()
    input.value?.focus()
    input.value?.select()
  },
  { immediate: true },
)

// Another size was clicked: its name, or its value, goes in where the caret stands.
watch(
  () => board.linked,
  async (linked) => {
    if (!linked) return
    board.linked = undefined
    const other = board.sketch.sizes.find((s) => s.id === linked.id)
    const element = input.value
    if (!other || !element) return
    const value = board.sketchState?.measured.get(linked.id) ?? 0
    const scaled = value / unitScale(measureOf(other), parts.units)
    const insert = linked.once ? String(Number(scaled.toPrecision(10))) : other.name
    const [from, to] = [element.selectionStart ?? 0, element.selectionEnd ?? 0]
    text.value = text.value.slice(0, from) + insert + text.value.slice(to)
    await nextTick()
    element.focus()
    element.setSelectionRange(from + insert.length, from + insert.length)
  },
)

// What was wrong with the text is not wrong with another one.
watch(text, () => {
  problem.value = undefined
  board.accused = []
})

/** What a tolerance that is typed comes to. */
const limits = computed(() => {
  const { part } = parts
  if (!part) return ''
  const want = measureOf({ kind: kind.value })
  const context = { want, units: part.units, lookup: valuesOf(part).table.lookup }
  const [value, tolerance] = [
    evaluateFormula(text.value, context),
    evaluateTolerance(text.value, context),
  ]
  if (!value.ok || !tolerance.ok || !tolerance.value) return ''
  const [least, most] = limitSizes(value.value, tolerance.value, want, part.units)
  return `from ${least} to ${most}`
})

/** A size that is there, with another value in its field, can scale the whole profile. */
const scales = computed(
  () =>
    size.value !== undefined &&
    size.value.kind !== 'angle' &&
    text.value.trim() !== '' &&
    text.value !== size.value.formula,
)

function commit(): boolean {
  const { field } = board
  if (!field) return true
  const first = !board.sketch.sizes.some((s) => !s.reference && s.kind !== 'angle')
  const result = parts.attempt(
    field.kind === 'new'
      ? addSize(board.sketch.id, field.offer, text.value, field.label)
      : changeSize(board.sketch.id, field.id, text.value),
  )
  if (!result.ok) {
    refuse(result.problem)
    return false
  }
  close()
  // A value that cannot hold is kept; the card then tells at once who disagrees.
  if (board.sketchState?.solution.solved === false) {
    board.picks = []
    board.stepId = undefined
  }
  if (first && field.kind === 'new') board.fit()
  return true
}

function refuse(why: Problem): void {
  problem.value = why
  board.accused = why.involves ?? []
  input.value?.focus()
  if (why.at) input.value?.setSelectionRange(why.at.from, why.at.to)
}

/** Brings this size to what was typed by scaling everything. */
function scaleWhole(): void {
  if (!size.value || !scales.value) return
  const result = parts.attempt(scaleAll(board.sketch.id, size.value.id, text.value))
  if (!result.ok) {
    refuse(result.problem)
    return
  }
  close()
  board.fit()
}

function close(): void {
  board.field = undefined
}

function keepAsReference(): void {
  const { field } = board
  if (!field) return
  const command =
    field.kind === 'new'
      ? addReference(board.sketch.id, field.offer)
      : setReference(board.sketch.id, field.id, true)
  if (parts.run(command)) close()
}

function remove(): void {
  const { field } = board
  if (field?.kind !== 'size') return
  close()
  parts.run(removeItems(board.sketch.id, [field.id]))
}

/** Tab takes the value and goes to the next size on the drawing. */
function onTab(event: KeyboardEvent): void {
  if (board.field?.kind !== 'size') {
    event.preventDefault()
    commit()
    return
  }
  event.preventDefault()
  const ids = props.drawings.map((d) => d.id).filter((id) => id !== 'pending')
  const here = ids.indexOf(board.field.id)
  const next = ids[(here + (event.shiftKey ? -1 : 1) + ids.length) % ids.length]
  if (!commit() || next === undefined) return
  board.picks = [next]
  board.openField({ kind: 'size', id: next })
}

/** Clicking elsewhere takes a value that holds; one that does not stays where it was typed. */
function onLeave(event: FocusEvent): void {
  const inside =
    event.relatedTarget instanceof Element &&
    event.relatedTarget.closest('.field, [data-size]') !== null
  if (inside || !board.field) return
  if (board.field.kind === 'size' && text.value === (size.value?.formula ?? '')) close()
  else commit()
}
</script>

<template>
  <form class="field" data-floats :style="style" @submit.prevent="commit" @focusout="onLeave">
    <div class="row" :class="{ wrong: problem }">
      <span v-if="signOf({ kind })" class="sign figure" aria-hidden="true">{{
        signOf({ kind })
      }}</span>
      <input
        ref="input"
        v-model="text"
        class="figure"
        autocomplete="off"
        spellcheck="false"
        :aria-label="label"
        :aria-invalid="problem !== undefined"
        :aria-describedby="problem ? 'size-problem' : undefined"
        @keydown.tab="onTab"
        @keydown.enter.shift.exact.prevent.stop="scaleWhole"
        @keydown.esc.stop.prevent="board.escape()"
        @keydown.stop
      />
      <span class="unit figure" aria-hidden="true">{{ unit }}</span>
      <button
        v-if="board.field?.kind === 'size'"
        type="button"
        class="plain"
        title="Delete this size"
        aria-label="Delete this size"
        @mousedown.prevent
        @click="remove"
      >
        ×
      </button>
    </div>
    <div v-if="limits && !problem" class="limits figure">{{ limits }}</div>
    <button
      v-if="scales && !problem"
      type="button"
      class="plain scale"
      title="Every length and diameter of the profile, in proportion"
      @mousedown.prevent
      @click="scaleWhole"
    >
      Scale all so that this is so <kbd>⇧ Enter</kbd>
    </button>
    <div v-if="problem" id="size-problem" class="problem" role="alert">
      <strong>{{ problem.message }}</strong> {{ problem.mend }}
      <button
        v-if="problem.code === 'size.redundant' || problem.code === 'size.conflict'"
        type="button"
        class="plain mend"
        @mousedown.prevent
        @click="keepAsReference"
      >
        Keep as reference
      </button>
    </div>
  </form>
</template>

<style scoped>
.field {
  position: absolute;
  z-index: 3;
  transform: translate(-50%, -13px);
  width: 240px;
}

.row {
  display: flex;
  align-items: center;
  width: 156px;
  margin: 0 auto;
  height: 26px;
  padding-left: 6px;
  border: 1.5px solid var(--halo);
  border-radius: 3px;
  background: var(--panel);
  box-shadow: 0 2px 10px rgb(30 42 50 / 18%);
}

.row.wrong {
  border-color: var(--conflict);
}

.row:focus-within {
  outline: 2px solid var(--halo);
  outline-offset: 0;
}

input {
  flex: 1;
  min-width: 0;
  border: 0;
  outline: 0;
  background: none;
  font-size: 13px;
}

.sign,
.unit {
  color: var(--ink-soft);
  font-size: 12px;
}

.unit {
  padding: 0 6px;
}

.plain {
  padding: 0 6px;
  line-height: 22px;
}

.problem {
  margin-top: 4px;
  padding: 6px 8px;
  border: 1px solid var(--conflict);
  border-radius: 3px;
  background: var(--conflict-wash);
  color: var(--ink);
  font-size: 12px;
  box-shadow: 0 2px 10px rgb(30 42 50 / 18%);
}

.limits,
.scale {
  display: block;
  width: fit-content;
  margin: 3px auto 0;
  padding: 2px 8px;
  border-radius: 3px;
  background: var(--panel);
  font-size: 12px;
  white-space: nowrap;
  box-shadow: 0 2px 10px rgb(30 42 50 / 18%);
}

.limits {
  color: var(--ink-soft);
}

.scale {
  color: var(--accent-deep);
}

.mend {
  margin-top: 4px;
  color: var(--accent-deep);
  font-weight: 600;
}
</style>
