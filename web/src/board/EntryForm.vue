<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import { unitScale } from '@lathica/core/units'
import { planeWords } from '@lathica/core/sketch'
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { turnedFigure } from '../ui/turnFigure'
import type { EntryField } from './tools'
import type { Px } from './view'

const props = defineProps<{ at: Px | null; width: number; height: number }>()
const board = useBoardStore()
const parts = usePartStore()
const form = useTemplateRef<HTMLFormElement>('form')
const texts = ref<string[]>([])
const problem = shallowRef<Problem>()
/** The form stays where it was opened, whatever the pointer does. */
const place = shallowRef<Px>({ x: 0, y: 0 })

const entry = computed(() => board.toolState?.entry)
const labels = computed(() => entry.value?.fields.map((f) => f.label).join() ?? '')
/** Directions by the names they have in the plane of the sketch. */
function called(label: string): string {
  const { axial, radial } = planeWords(board.sketch.plane)
  if (board.sketch.plane === 'half') return label
  return { axial, radial, axially: 'across', radially: 'up' }[label] ?? label
}
const isWide = computed(() => entry.value?.fields.some((f) => f.want === 'words') === true)
const style = computed(() => {
  const reach = isWide.value ? 380 : 24 + 132 * (entry.value?.fields.length ?? 1)
  const x = Math.min(Math.max(8, place.value.x + 18), Math.max(8, props.width - reach - 8))
  const y = Math.min(Math.max(8, place.value.y + 22), Math.max(8, props.height - 120))
  return { left: `${x}px`, top: `${y}px` }
})

/** What is to be said of what is typed so far. */
const said = computed(() => board.typedOverlay?.words ?? [])

function unitOf({ want }: EntryField): string {
  if (want === 'length') return parts.units.length
  return want === 'angle' ? parts.units.angle : ''
}

/** What it would be if nothing were typed, as the field's shadow. */
function shadowOf({ want, now }: EntryField): string {
  if (now === undefined || want === 'words') return ''
  return String(Number((now / unitScale(want, parts.units)).toFixed(want === 'angle' ? 1 : 2)))
}

function inputs(): HTMLInputElement[] {
  return [...(form.value?.querySelectorAll('input') ?? [])]
}

watch(
  labels,
  async () => {
    const first = board.typing ?? ''
    texts.value = (entry.value?.fields ?? []).map((f, i) =>
      i === 0 && first !== '' ? first : (f.text ?? ''),
    )
    problem.value = undefined
    place.value = props.at ?? { x: props.width / 2 - 120, y: 24 }
    show()
    await nextTick()
    const [input] = inputs()
    input?.focus()
    if (first === '') input?.select()
  },
  { immediate: true },
)

// A press on the board takes the focus; while the tool waits for a value it comes back.
watch(
  () => board.toolState,
  async (state) => {
    show()
    await nextTick()
    if (state?.entry?.open === true && form.value?.contains(document.activeElement) === false) {
      inputs()[0]?.focus()
    }
  },
)

function show(): void {
  board.typedOverlay = entry.value?.preview?.(texts.value)
}

function onInput(): void {
  problem.value = undefined
  show()
}

/** Turns a figure up or down by an arrow key, from what stands in its shadow where nothing is typed. */
function turn(i: number, by: 1 | -1, event: KeyboardEvent): void {
  const field = entry.value?.fields[i]
  if (!field) return
  const text = texts.value[i] ?? ''
  texts.value[i] = turnedFigure(text === '' ? shadowOf(field) : text, by, event)
  onInput()
}

function take(): void {
  const more = entry.value?.more?.(texts.value)
  if (more) {
    texts.value = [...more]
    return
  }
  const result = entry.value?.take(texts.value)
  if (!result) return
  if ('message' in result) {
    problem.value = result
    inputs()[0]?.focus()
    return
  }
  const again = board.toolId
  board.closeEntry()
  board.feed(result)
  if (board.toolId === again) restart()
}

/** The next corner, the next line: what was typed is done with. */
function restart(): void {
  texts.value = (entry.value?.fields ?? []).map((f) => f.text ?? '')
}

function onTab(event: KeyboardEvent): void {
  const all = inputs()
  const here = all.indexOf(event.target as HTMLInputElement)
  const next = all[(here + (event.shiftKey ? -1 : 1) + all.length) % all.length]
  next?.focus()
  next?.select()
}
</script>

<template>
  <form ref="form" class="entry" data-floats :style="style" @submit.prevent="take">
    <div class="row">
      <label v-for="(field, i) in entry?.fields" :key="field.label" :class="{ wide: isWide }">
        <span class="name">{{ called(field.label) }}</span>
        <span class="value" :class="{ wrong: problem }">
          <span v-if="field.sign" class="soft figure" aria-hidden="true">{{ field.sign }}</span>
          <input
            v-model="texts[i]"
            class="figure"
            autocomplete="off"
            spellcheck="false"
            :placeholder="shadowOf(field)"
            :aria-label="called(field.label)"
            :aria-invalid="problem !== undefined"
            @input="onInput"
            @keydown.tab.prevent="onTab"
            @keydown.up.prevent="turn(i, 1, $event)"
            @keydown.down.prevent="turn(i, -1, $event)"
            @keydown.esc.stop.prevent="board.escape()"
            @keydown.enter.prevent="take"
            @keydown.stop
          />
          <span class="soft figure" aria-hidden="true">{{ unitOf(field) }}</span>
        </span>
      </label>
    </div>
    <p v-if="problem" class="problem" role="alert">
      <strong>{{ problem.message }}</strong> {{ problem.mend }}
    </p>
    <p v-else-if="said.length > 0" class="said" role="status">{{ said.join(' · ') }}</p>
  </form>
</template>

<style scoped src="../ui/valueField.css"></style>

<style scoped>
.entry {
  position: absolute;
  z-index: 3;
  max-width: 420px;
  padding: 6px;
  border: 1.5px solid var(--halo);
  border-radius: 3px;
  background: var(--panel);
  box-shadow: 0 2px 10px rgb(30 42 50 / 18%);
}

.row {
  display: flex;
  gap: 6px;
}

label {
  display: block;
  width: 124px;
}

.wide {
  width: 360px;
}

.name {
  display: block;
  padding: 0 2px 2px;
  color: var(--ink-soft);
  font-size: 11px;
  white-space: nowrap;
}

.problem {
  max-width: 400px;
  margin: 6px 2px 0;
  color: var(--ink);
  font-size: 12px;
}

.said {
  margin: 5px 2px 0;
  color: var(--ink-soft);
  font-size: 12px;
}

.problem strong {
  color: var(--conflict);
}
</style>
