<script setup lang="ts">
import { END_AXIS } from '@lathica/core/drawing'
import {
  changeEnlarged,
  changeSheet,
  changeTitle,
  measureDrawn,
  type SheetChange,
} from '@lathica/core/edit'
import { PAPER_NAMES, type DrawnSize, type SheetSetup, type TitleFields } from '@lathica/core/part'
import { Button, Switch } from 'ant-design-vue'
import { computed } from 'vue'
import { usePartStore } from '../store/part'
import { useSheetStore } from '../store/sheet'
import PlainSelect from '../ui/PlainSelect.vue'
import { typedNumber } from '../ui/typedNumber'
import BlockChoice from './BlockChoice.vue'

/** How the sheet is drawn, and what stands in its title block. */
const parts = usePartStore()
const sheet = useSheetStore()
const setup = computed(() => sheet.setup)
const title = computed(() => sheet.all.title)

/** What is chosen from a list: the field of the setup, and what it may be. */
type Chosen = { readonly [K in keyof SheetSetup]: Choice<K> }[
  | 'paper'
  | 'view'
  | 'long'
  | 'ends'
  | 'sections'
  | 'details'
  | 'picture'
  | 'lengths'
  | 'origin'
  | 'projection'
  | 'lines']
interface Choice<K extends keyof SheetSetup> {
  readonly id: K
  readonly label: string
  readonly options: readonly { readonly value: SheetSetup[K] & string; readonly label: string }[]
}

const paper: Choice<'paper'> = {
  ...{ id: 'paper', label: 'Paper' },
  options: [
    { value: 'auto', label: 'by itself' },
    ...PAPER_NAMES.map((value) => ({ value, label: value })),
  ],
}
/** Those that follow paper and scale. */
const choices: readonly Chosen[] = [
  {
    ...{ id: 'view', label: 'Along' },
    options: [
      { value: 'auto', label: 'by itself' },
      { value: 'outside', label: 'outside' },
      { value: 'local', label: 'outside, cut open' },
      { value: 'half', label: 'half section' },
      { value: 'full', label: 'full section' },
    ],
  },
  {
    ...{ id: 'long', label: 'Long plain' },
    options: [
      { value: 'auto', label: 'broken to be larger' },
      { value: 'whole', label: 'whole' },
    ],
  },
  {
    ...{ id: 'ends', label: 'Ends' },
    options: [
      { value: 'auto', label: 'where it needs them' },
      { value: 'none', label: 'none' },
      { value: 'left', label: 'from the left' },
      { value: 'right', label: 'from the right' },
      { value: 'both', label: 'both' },
    ],
  },
  {
    ...{ id: 'sections', label: 'Across' },
    options: [
      { value: 'auto', label: 'keyways and flats cut' },
      { value: 'none', label: 'none' },
    ],
  },
  {
    ...{ id: 'details', label: 'Details' },
    options: [
      { value: 'auto', label: 'of what is small' },
      { value: 'none', label: 'none' },
    ],
  },
  {
    ...{ id: 'picture', label: 'Picture' },
    options: [
      { value: 'none', label: 'none' },
      { value: 'quarter', label: 'a quarter cut out' },
      { value: 'whole', label: 'whole' },
    ],
  },
  {
    ...{ id: 'lengths', label: 'Lengths' },
    options: [
      { value: 'parallel', label: 'side by side' },
      { value: 'running', label: 'running from a face' },
    ],
  },
  {
    ...{ id: 'origin', label: 'Run from' },
    options: [
      { value: 'auto', label: 'where most begin' },
      { value: 'left', label: 'the left end' },
      { value: 'right', label: 'the right end' },
      { value: 'edge', label: 'a chosen edge' },
    ],
  },
  {
    ...{ id: 'projection', label: 'Projection' },
    options: [
      { value: 'first', label: 'first angle' },
      { value: 'third', label: 'third angle' },
    ],
  },
  {
    ...{ id: 'lines', label: 'Outlines' },
    options: [
      { value: '0.5', label: '0.5 mm' },
      { value: '0.7', label: '0.7 mm' },
    ],
  },
]

const fields: readonly { readonly id: keyof TitleFields; readonly label: string }[] = [
  { id: 'owner', label: 'Owner' },
  { id: 'number', label: 'Number' },
  { id: 'creator', label: 'Drawn by' },
  { id: 'approver', label: 'Approved by' },
  { id: 'date', label: 'Date of issue' },
  { id: 'revision', label: 'Revision' },
  { id: 'status', label: 'Status' },
]

const change = (to: SheetChange): void => void parts.run(changeSheet(setup.value.id, to))

/** An edge is chosen on the sheet. */
function choose(id: Chosen['id'], value: string): void {
  if (id === 'origin' && value === 'edge') sheet.choose('origin')
  else change({ [id]: value })
}

/** Where lengths run from is asked only where they do. */
const isUsed = ({ id }: Chosen): boolean => id !== 'origin' || setup.value.lengths === 'running'

/** What a sheet may be of: all bodies, or one. */
const bodies = computed(() => [
  { value: '', label: 'all of them' },
  ...(parts.part?.bodies ?? [])
    .filter((b) => !b.reference)
    .map((b) => ({ value: b.id, label: b.name })),
])

function writeName(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim().slice(0, 120)
  if (name !== setup.value.name) change({ name })
}

function write(field: keyof TitleFields, event: Event): void {
  const value = (event.target as HTMLInputElement).value.trim().slice(0, 200)
  if (value !== title.value[field]) parts.run(changeTitle({ [field]: value }))
}

function writeScale(event: Event): void {
  const scale = (event.target as HTMLInputElement).value.trim().slice(0, 20)
  if (scale !== setup.value.scale) change({ scale })
}

/** What is picked, where it was chosen to be drawn larger. */
const larger = computed(() =>
  sheet.picked === undefined ? undefined : sheet.enlargedOf(sheet.picked),
)

/** What a size that was drawn between two places can tell of them. */
const MEASURES: readonly { readonly value: DrawnSize['kind']; readonly label: string }[] = [
  { value: 'apart', label: 'straight' },
  { value: 'along', label: 'level' },
  { value: 'radial', label: 'upright' },
  { value: 'angle', label: 'angle about the axis' },
]

/** What is picked, where it was drawn between two points of the view from an end. */
const between = computed(() => {
  const found = sheet.picked === undefined ? undefined : sheet.drawnOf(sheet.picked)
  return found && found.end !== '' && found.from !== found.to ? found : undefined
})

/** From the axis itself there is no angle about it. */
const measures = computed(() => {
  const ends = [between.value?.from, between.value?.to]
  return MEASURES.filter((m) => m.value !== 'angle' || !ends.includes(END_AXIS))
})

function measure(kind: DrawnSize['kind']): void {
  if (between.value) parts.run(measureDrawn(setup.value.id, between.value.id, kind))
}

function changeLarger(to: { radius?: number; scale?: string }): void {
  if (larger.value) parts.run(changeEnlarged(setup.value.id, larger.value.id, to))
}

function writeRadius(event: Event): void {
  const radius = typedNumber(event, larger.value?.radius, (mm) => mm > 0 && mm < 1e5)
  if (radius !== undefined) changeLarger({ radius })
}

function writeLargerScale(event: Event): void {
  changeLarger({ scale: (event.target as HTMLInputElement).value.trim().slice(0, 20) })
}

const picked = computed(() =>
  sheet.picked === undefined ? undefined : sheet.drawing?.labels.get(sheet.picked),
)
</script>

<template>
  <div class="sheet-panel">
    <section
      v-if="picked && sheet.picked !== undefined"
      class="in-hand"
      aria-label="What is picked"
    >
      <h2>Picked</h2>
      <p class="figure written">{{ picked.said }}</p>
      <p class="soft">
        In field {{ picked.field }} of the sheet{{
          sheet.isMoved(sheet.picked) ? ', where it was dragged to' : ''
        }}.
      </p>
      <div v-if="larger" class="fields">
        <label for="larger-radius">Circle, R mm</label>
        <input
          id="larger-radius"
          class="figure"
          inputmode="decimal"
          :value="larger.radius"
          @change="writeRadius"
        />
        <label for="larger-scale">Scale</label>
        <input
          id="larger-scale"
          class="figure"
          :value="larger.scale"
          placeholder="by itself"
          @change="writeLargerScale"
        />
      </div>
      <div v-if="between" class="fields">
        <label for="drawn-measure">Measured</label>
        <PlainSelect
          id="drawn-measure"
          :options="measures"
          :model-value="between.kind"
          @update:model-value="measure"
        />
      </div>
      <div class="row">
        <Button
          size="small"
          :disabled="!sheet.isMoved(sheet.picked)"
          @click="sheet.putBack(sheet.picked)"
        >
          Put back
        </Button>
        <Button size="small" @click="sheet.takeOff()">Take off</Button>
      </div>
    </section>
    <section
      v-if="sheet.drawing && sheet.drawing.told.length > 0"
      aria-label="What is told of the sheet"
    >
      <p v-for="words in sheet.drawing.told" :key="words" class="told" role="status">{{ words }}</p>
      <Button v-if="setup.hidden.length > 0" size="small" @click="sheet.putOn()">
        Put them on again
      </Button>
    </section>
    <section aria-label="Own sizes" class="row">
      <Button
        size="small"
        :type="sheet.tool === 'size' ? 'primary' : 'default'"
        :disabled="!sheet.drawing"
        @click="sheet.choose('size')"
      >
        Draw a size
      </Button>
      <Button
        size="small"
        :type="sheet.tool === 'larger' ? 'primary' : 'default'"
        :disabled="!sheet.drawing"
        @click="sheet.choose('larger')"
      >
        Draw a place larger
      </Button>
    </section>
    <section aria-label="Sheet">
      <h2>Sheet</h2>
      <div class="fields">
        <template v-if="sheet.all.sheets.length > 1">
          <label for="sheet-name">Name</label>
          <input id="sheet-name" :value="setup.name" @change="writeName" />
        </template>
        <template v-if="bodies.length > 2 || setup.body !== ''">
          <label for="sheet-body">Bodies</label>
          <PlainSelect
            id="sheet-body"
            :options="bodies"
            :model-value="setup.body"
            @update:model-value="change({ body: $event })"
          />
        </template>
        <label for="sheet-paper">Paper</label>
        <PlainSelect
          id="sheet-paper"
          :options="paper.options"
          :model-value="setup.paper"
          @update:model-value="change({ paper: $event })"
        />
        <label for="sheet-upright">Upright</label>
        <span>
          <Switch
            id="sheet-upright"
            size="small"
            :checked="setup.upright"
            @change="change({ upright: !setup.upright })"
          />
        </span>
        <label for="sheet-scale">Scale</label>
        <input
          id="sheet-scale"
          class="figure"
          :value="setup.scale"
          :placeholder="sheet.drawing ? `by itself, ${sheet.drawing.scale.words}` : 'by itself'"
          @change="writeScale"
        />
        <template v-for="c in choices.filter(isUsed)" :key="c.id">
          <label :for="`sheet-${c.id}`">{{ c.label }}</label>
          <PlainSelect
            :id="`sheet-${c.id}`"
            :options="c.options"
            :model-value="setup[c.id]"
            @update:model-value="choose(c.id, $event)"
          />
        </template>
      </div>
    </section>
    <section aria-label="Title block">
      <h2>Title block</h2>
      <div class="fields">
        <BlockChoice />
        <template v-for="f in fields" :key="f.id">
          <label :for="`title-${f.id}`">{{ f.label }}</label>
          <input
            :id="`title-${f.id}`"
            :value="title[f.id]"
            maxlength="200"
            @change="write(f.id, $event)"
          />
        </template>
      </div>
    </section>
  </div>
</template>

<style scoped src="./panel.css"></style>
