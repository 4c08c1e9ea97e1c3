<script setup lang="ts">
import {
  DATUM_LETTERS,
  SURFACE_VALUES,
  changeNote,
  characteristicWords,
  fitLand,
  landOf,
  removeNote,
  type NoteState,
} from '@lathica/core/notes'
import { CHARACTERISTICS, type Note } from '@lathica/core/part'
import { faceWords } from '@lathica/core/route'
import { readThread, threadsFor } from '@lathica/core/standards'
import { formatLength } from '@lathica/core/units'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { useNotesStore } from '../store/notes'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

/** The fields of one note. What is typed is kept even where it has no meaning. */
const props = defineProps<{ state: NoteState }>()
const parts = usePartStore()
const notes = useNotesStore()

const note = computed(() => props.state.note)
const where = computed(() => {
  if (note.value.on === '') return 'all other faces'
  const [edge] = props.state.edges
  return edge ? faceWords(edge, parts.units) : 'gone'
})
const TITLES: Readonly<Record<Note['kind'], string>> = {
  thread: 'Thread',
  datum: 'Datum',
  frame: 'Geometric tolerance',
  surface: 'Surface',
  treatment: 'Treatment',
  text: 'Words',
}

function change(next: object): void {
  parts.run(changeNote({ ...note.value, ...next } as Note))
}
function typed(field: string, event: Event): void {
  const { value } = event.target as HTMLInputElement
  if ((note.value as unknown as Record<string, unknown>)[field] !== value)
    change({ [field]: value })
}
/** Esc leaves the field, so that keys are for the board again; what is open stays. */
function leave(event: KeyboardEvent): void {
  if (event.target instanceof HTMLElement) event.target.blur()
}
function remove(): void {
  const { id } = note.value
  notes.noteId = undefined
  parts.run(removeNote(id))
}

const fitting = computed(() => {
  const land = landOf(props.state.edges)
  return land ? threadsFor(2 * land.radius, land.side) : []
})
const mm = (value: number): string => `${formatLength(value, parts.units)} ${parts.units.length}`
/** What the standard says of the thread. */
const figures = computed<readonly (readonly [string, string])[]>(() => {
  const n = note.value
  const read = n.kind === 'thread' ? readThread(n.callout) : undefined
  if (!read?.ok) return []
  const t = read.value
  return [
    ['Standard', t.standard],
    ['Major', `⌀${mm(t.major)}`],
    ['Pitch ⌀', `⌀${mm(t.pitchDiameter)}`],
    ['Minor', `⌀${mm(t.minor)}`],
    ['Root', `⌀${mm(t.root)}`],
    ['Pitch', `${mm(t.pitch)}${t.perInch === undefined ? '' : `, ${t.perInch} to the inch`}`],
    ...(t.starts > 1 ? [['Lead', `${mm(t.lead)}, ${t.starts} starts`] as const] : []),
    ...(t.stressArea === undefined
      ? []
      : [['Stress area', `${t.stressArea.toFixed(1)} mm²`] as const]),
    ...(t.drill === undefined || landOf(props.state.edges)?.side !== 'inside'
      ? []
      : [['Drill', `⌀${mm(t.drill)}`] as const]),
  ]
})
const ENDS = computed(() =>
  parts.lie === 'standing'
    ? [
        { value: 'left' as const, label: 'its lower end' },
        { value: 'right' as const, label: 'its upper end' },
      ]
    : [
        { value: 'left' as const, label: 'its left end' },
        { value: 'right' as const, label: 'its right end' },
      ],
)
const LETTERS = DATUM_LETTERS.map((value) => ({ value, label: value }))
const KINDS = CHARACTERISTICS.map((value) => ({ value, label: characteristicWords(value) }))
const ZONES = [
  { value: 'wide', label: 'between two faces' },
  { value: 'round', label: '⌀, about an axis' },
]
const MATERIALS = [
  { value: '' as const, label: 'at any' },
  { value: 'M' as const, label: 'at most material, Ⓜ' },
  { value: 'L' as const, label: 'at least material, Ⓛ' },
]
const PARAMETERS = [
  { value: 'Ra' as const, label: 'Ra, mean' },
  { value: 'Rz' as const, label: 'Rz, height' },
]
const REMOVALS = [
  { value: 'any' as const, label: 'any way' },
  { value: 'required' as const, label: 'by taking material off' },
  { value: 'forbidden' as const, label: 'without taking material off' },
]
</script>

<template>
  <div class="note-card" @keydown.esc.stop="leave">
    <h2>{{ TITLES[note.kind] }}</h2>
    <dl class="fields">
      <dt>On</dt>
      <dd>{{ where }}</dd>
      <template v-if="note.kind === 'thread'">
        <dt><label for="note-callout">Callout</label></dt>
        <dd>
          <input
            id="note-callout"
            data-first
            class="text figure"
            list="note-threads"
            :value="note.callout"
            placeholder="M16x1.5-6g"
            @change="typed('callout', $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="($event.target as HTMLInputElement).blur()"
            @keydown.stop
          />
          <datalist id="note-threads">
            <option v-for="t in fitting" :key="t" :value="t" />
          </datalist>
        </dd>
        <dt><label for="note-length">Length</label></dt>
        <dd>
          <input
            id="note-length"
            class="text figure"
            :value="note.length"
            placeholder="the whole face"
            @change="typed('length', $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="($event.target as HTMLInputElement).blur()"
            @keydown.stop
          />
        </dd>
        <dt><label for="note-from">From</label></dt>
        <dd>
          <PlainSelect
            id="note-from"
            :model-value="note.from"
            :options="ENDS"
            @update:model-value="change({ from: $event })"
          />
        </dd>
      </template>
      <template v-else-if="note.kind === 'datum'">
        <dt><label for="note-letter">Letter</label></dt>
        <dd>
          <PlainSelect
            id="note-letter"
            data-first
            :model-value="note.letter"
            :options="LETTERS"
            @update:model-value="change({ letter: $event })"
          />
        </dd>
      </template>
      <template v-else-if="note.kind === 'frame'">
        <dt><label for="note-characteristic">Of</label></dt>
        <dd>
          <PlainSelect
            id="note-characteristic"
            :model-value="note.characteristic"
            :options="KINDS"
            @update:model-value="change({ characteristic: $event })"
          />
        </dd>
        <dt><label for="note-zone">Zone</label></dt>
        <dd>
          <input
            id="note-zone"
            data-first
            class="text figure"
            :value="note.zone"
            @change="typed('zone', $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="($event.target as HTMLInputElement).blur()"
            @keydown.stop
          />
        </dd>
        <dt><label for="note-round">Lies</label></dt>
        <dd>
          <PlainSelect
            id="note-round"
            :model-value="note.round ? 'round' : 'wide'"
            :options="ZONES"
            @update:model-value="change({ round: $event === 'round' })"
          />
        </dd>
        <dt><label for="note-material">Material</label></dt>
        <dd>
          <PlainSelect
            id="note-material"
            :model-value="note.material"
            :options="MATERIALS"
            @update:model-value="change({ material: $event })"
          />
        </dd>
        <dt><label for="note-datums">Datums</label></dt>
        <dd>
          <input
            id="note-datums"
            class="text figure"
            :value="note.datums"
            placeholder="none, A, A B, or A-B together"
            @change="typed('datums', $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="($event.target as HTMLInputElement).blur()"
            @keydown.stop
          />
        </dd>
      </template>
      <template v-else-if="note.kind === 'surface'">
        <dt><label for="note-parameter">Parameter</label></dt>
        <dd>
          <PlainSelect
            id="note-parameter"
            :model-value="note.parameter"
            :options="PARAMETERS"
            @update:model-value="change({ parameter: $event })"
          />
        </dd>
        <dt><label for="note-value">At most</label></dt>
        <dd>
          <input
            id="note-value"
            data-first
            class="text figure"
            list="note-values"
            :value="note.value"
            aria-label="At most, in µm"
            @change="typed('value', $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="($event.target as HTMLInputElement).blur()"
            @keydown.stop
          />
          <datalist id="note-values">
            <option v-for="v in SURFACE_VALUES" :key="v" :value="v" />
          </datalist>
        </dd>
        <dt><label for="note-removal">Made</label></dt>
        <dd>
          <PlainSelect
            id="note-removal"
            :model-value="note.removal"
            :options="REMOVALS"
            @update:model-value="change({ removal: $event })"
          />
        </dd>
      </template>
      <template v-else-if="note.kind === 'treatment'">
        <dt><label for="note-treated">Treated</label></dt>
        <dd>
          <input
            id="note-treated"
            data-first
            class="text"
            maxlength="120"
            :value="note.words"
            placeholder="hardened 58 +4 HRC"
            @change="typed('words', $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="($event.target as HTMLInputElement).blur()"
            @keydown.stop
          />
        </dd>
        <dt><label for="note-depth">Depth</label></dt>
        <dd>
          <input
            id="note-depth"
            class="text figure"
            :value="note.depth"
            placeholder="not said"
            @change="typed('depth', $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="($event.target as HTMLInputElement).blur()"
            @keydown.stop
          />
        </dd>
      </template>
      <template v-else>
        <dt><label for="note-words">Words</label></dt>
        <dd>
          <input
            id="note-words"
            data-first
            class="text"
            maxlength="400"
            :value="note.words"
            @change="typed('words', $event)"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="($event.target as HTMLInputElement).blur()"
            @keydown.stop
          />
        </dd>
      </template>
      <template v-for="[name, value] in figures" :key="name">
        <dt>{{ name }}</dt>
        <dd class="figure">{{ value }}</dd>
      </template>
    </dl>
    <div v-if="state.problem" class="problem" role="alert">
      <strong>{{ state.problem.message }}</strong> {{ state.problem.mend }}
      <button
        v-if="state.problem.code === 'thread.diameter' && note.kind === 'thread'"
        type="button"
        class="plain mend"
        @click="parts.run(fitLand(note))"
      >
        Make it fit
      </button>
    </div>
    <div class="buttons">
      <Button type="primary" @click="notes.noteId = undefined">Done</Button>
      <Button danger @click="remove">Delete note</Button>
    </div>
  </div>
</template>

<style scoped src="./card.css"></style>
