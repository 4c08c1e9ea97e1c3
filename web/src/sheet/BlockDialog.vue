<script setup lang="ts">
import {
  addBlockCell,
  addBlockLine,
  changeBlock,
  changeBlockCell,
  changeBlockLine,
  removeBlockCell,
  removeBlockLine,
  type BlockLines,
} from '@lathica/core/edit'
import { LARGEST_MARK_FILE, readMark } from '@lathica/core/formats'
import {
  BLOCK_SHOWS,
  MOST_BLOCK_LINES,
  NEEDED_FIELDS,
  PLAIN_BLOCK,
  placesOf,
  refuseBlock,
  sumOf,
  type BlockCell,
  type BlockShows,
  type TitleBlock,
} from '@lathica/core/part'
import { Button, Modal } from 'ant-design-vue'
import { computed, ref, shallowRef } from 'vue'
import { usePartStore } from '../store/part'
import { useSheetStore } from '../store/sheet'
import { useTitleBlocksStore } from '../store/titleBlocks'
import PlainSelect from '../ui/PlainSelect.vue'
import { typedNumber } from '../ui/typedNumber'
import BlockGrid from './BlockGrid.vue'

/** A title block of one's own: its rows and columns, what stands in its cells, and a mark. */
const emit = defineEmits<{ close: [] }>()
const parts = usePartStore()
const sheet = useSheetStore()
const library = useTitleBlocksStore()

const block = shallowRef<TitleBlock>(sheet.all.block ?? PLAIN_BLOCK)
const inHand = ref(0)
const told = ref<readonly string[]>([])
const against = ref('')
const busy = ref(false)

const WORDS: Readonly<Record<BlockShows, string>> = {
  ...{ owner: 'owner', title: 'title', number: 'number', creator: 'drawn by' },
  ...{ approver: 'approved by', date: 'date of issue', revision: 'revision', status: 'status' },
  ...{ type: 'document type', scale: 'scale', projection: 'projection', sheet: 'sheet' },
  ...{ paper: 'paper', material: 'material', mass: 'mass', general: 'general tolerances' },
  ...{ words: 'words of its own', mark: 'the mark' },
}
const shows = BLOCK_SHOWS.map((value) => ({ value, label: WORDS[value] }))

const values = computed(() => ({ ...sheet.all.title, title: parts.name }))
const cell = computed((): BlockCell | undefined => block.value.cells[inHand.value])
const problem = computed(() => {
  const refused = refuseBlock(block.value)
  return refused && !refused.ok ? `${refused.problem.message} ${refused.problem.mend}` : ''
})
/** What every title block has by the standard, and this one has not. */
const missing = computed(() => {
  const shown = new Set(block.value.cells.map((c) => c.shows))
  return NEEDED_FIELDS.filter((f) => !shown.has(f)).map((f) => WORDS[f])
})

function take(made: TitleBlock): void {
  block.value = made
  against.value = ''
}

const LINES: readonly { readonly id: BlockLines; readonly one: string; readonly title: string }[] =
  [
    { id: 'columns', one: 'column', title: 'Columns, mm' },
    { id: 'rows', one: 'row', title: 'Rows, mm' },
  ]

function writeLine(which: BlockLines, at: number, event: Event): void {
  const size = typedNumber(event, block.value[which][at], (mm) => mm > 0 && mm < 1000)
  if (size !== undefined) take(changeBlockLine(block.value, which, at, size))
}

function changeCell(change: Partial<BlockCell>): void {
  take(changeBlockCell(block.value, inHand.value, change))
}

function writeCount(field: 'down' | 'across', event: Event): void {
  const count = typedNumber(
    event,
    cell.value?.[field],
    (n) => Math.round(n) >= 1 && Math.round(n) <= MOST_BLOCK_LINES,
  )
  if (count !== undefined) changeCell({ [field]: Math.round(count) })
}

function writeLetter(event: Event): void {
  const letter = typedNumber(event, cell.value?.letter, (mm) => mm >= 1.8 && mm <= 20)
  if (letter !== undefined) changeCell({ letter })
}

const written = (event: Event): string => (event.target as HTMLInputElement).value.slice(0, 200)

/** A new cell shows what is missing yet, if anything. */
function add(row: number, column: number): void {
  const made = addBlockCell(block.value, row, column)
  const at = made.cells.length - 1
  const [wanted] = NEEDED_FIELDS.filter((f) => !block.value.cells.some((c) => c.shows === f))
  take(wanted ? changeBlockCell(made, at, { shows: wanted, label: WORDS[wanted] }) : made)
  inHand.value = at
}

function removeCell(): void {
  take(removeBlockCell(block.value, inHand.value))
  inHand.value = Math.max(0, inHand.value - 1)
}

async function readMarkFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  if (!file) return
  const text = file.size > LARGEST_MARK_FILE ? ' '.repeat(LARGEST_MARK_FILE + 1) : await file.text()
  const read = readMark(text)
  if (!read.ok) {
    against.value = `${read.problem.message} ${read.problem.mend}`
    return
  }
  take({ ...block.value, mark: read.value.mark })
  told.value = read.value.told
}

function removeMark(): void {
  const { mark: _, ...rest } = block.value
  take(rest)
  told.value = []
}

/** An empty cell for what has none yet: only places that no cell takes up. */
const free = computed(() => {
  const taken = new Set(
    block.value.cells.flatMap((c) => (c.down * c.across < 200 ? placesOf(c) : [])),
  )
  return block.value.rows.flatMap((_, row) =>
    block.value.columns.flatMap((_c, column) =>
      taken.has(`${row}/${column}`) ? [] : [{ row, column }],
    ),
  )
})

function use(): boolean {
  const made = { ...block.value, name: block.value.name.trim() }
  return parts.run(changeBlock(made))
}

async function keep(): Promise<void> {
  const name = block.value.name.trim()
  if (name === '') {
    against.value = 'A block that is kept needs a name. Type one.'
    return
  }
  busy.value = true
  const refused = await library.put({ ...block.value, name })
  busy.value = false
  if (refused) against.value = `${refused.message} ${refused.mend}`
  else if (use()) emit('close')
}

async function forget(name: string): Promise<void> {
  const refused = await library.remove(name)
  if (refused) against.value = `${refused.message} ${refused.mend}`
}
</script>

<template>
  <Modal open title="Title block" :footer="null" :width="940" @cancel="emit('close')">
    <div class="dialog" @keydown.stop>
      <div class="desk">
        <BlockGrid
          :block="block"
          :words="WORDS"
          :values="values"
          :in-hand="inHand"
          :free="free"
          @pick="inHand = $event"
          @add="add"
        />
        <p class="soft figure">
          {{ sumOf(block.columns) }} × {{ sumOf(block.rows) }} mm; a sheet of A4 has room for 180 ×
          100.
        </p>
        <p v-if="missing.length > 0" class="told" role="status">
          Every title block has these, too (ISO 7200): {{ missing.join(', ') }}.
        </p>
        <p v-for="words in told" :key="words" class="told" role="status">{{ words }}</p>
        <div class="lines">
          <fieldset v-for="l in LINES" :key="l.id">
            <legend>{{ l.title }}</legend>
            <span v-for="(size, i) in block[l.id]" :key="i" class="line">
              <input
                class="figure"
                inputmode="decimal"
                :aria-label="`${l.one} ${i + 1}`"
                :value="size"
                @change="writeLine(l.id, i, $event)"
              />
              <button
                type="button"
                class="plain"
                :aria-label="`take ${l.one} ${i + 1} off`"
                :disabled="block[l.id].length < 2"
                @click="take(removeBlockLine(block, l.id, i))"
              >
                ×
              </button>
            </span>
            <Button size="small" @click="take(addBlockLine(block, l.id))">Add a {{ l.one }}</Button>
          </fieldset>
        </div>
      </div>
      <div class="side">
        <label for="block-name">Name</label>
        <input
          id="block-name"
          maxlength="80"
          :value="block.name"
          placeholder="to keep it for other parts"
          @input="take({ ...block, name: written($event).slice(0, 80) })"
        />
        <h3>Cell</h3>
        <template v-if="cell">
          <label for="cell-shows">Shows</label>
          <PlainSelect
            id="cell-shows"
            :options="shows"
            :model-value="cell.shows"
            @update:model-value="changeCell({ shows: $event })"
          />
          <template v-if="cell.shows === 'words'">
            <label for="cell-words">Words</label>
            <input
              id="cell-words"
              :value="cell.words"
              @input="changeCell({ words: written($event) })"
            />
          </template>
          <label for="cell-label">Label</label>
          <input
            id="cell-label"
            :value="cell.label"
            @input="changeCell({ label: written($event) })"
          />
          <label for="cell-letter">Letters, mm</label>
          <input
            id="cell-letter"
            class="figure"
            inputmode="decimal"
            :value="cell.letter"
            @change="writeLetter"
          />
          <label for="cell-across">Columns</label>
          <input
            id="cell-across"
            class="figure"
            inputmode="numeric"
            :value="cell.across"
            @change="writeCount('across', $event)"
          />
          <label for="cell-down">Rows</label>
          <input
            id="cell-down"
            class="figure"
            inputmode="numeric"
            :value="cell.down"
            @change="writeCount('down', $event)"
          />
          <span />
          <span><Button size="small" @click="removeCell">Take the cell off</Button></span>
        </template>
        <p v-else class="soft wide">Pick a cell, or press + where there is none.</p>
        <h3>Mark</h3>
        <p class="wide row">
          <label class="file">
            <input type="file" accept=".svg,image/svg+xml" @change="readMarkFile" />
            <span>Choose an SVG …</span>
          </label>
          <Button v-if="block.mark" size="small" @click="removeMark">Take it off</Button>
        </p>
        <p v-if="block.mark && !block.cells.some((c) => c.shows === 'mark')" class="soft wide">
          It stands where a cell shows the mark.
        </p>
        <template v-if="library.kept.length > 0">
          <h3>Kept for all parts</h3>
          <ul class="wide">
            <li v-for="b in library.kept" :key="b.name">
              <button type="button" class="plain" @click="take(b)">{{ b.name }}</button>
              <button
                type="button"
                class="plain"
                :aria-label="`delete ${b.name}`"
                @click="forget(b.name)"
              >
                delete
              </button>
            </li>
          </ul>
        </template>
      </div>
    </div>
    <p v-if="problem || against" class="wrong" role="alert">{{ problem || against }}</p>
    <div class="buttons">
      <Button type="primary" :disabled="problem !== ''" @click="use() && emit('close')">
        Use for this part
      </Button>
      <Button :disabled="problem !== ''" :loading="busy" @click="keep">
        Keep for all parts, and use
      </Button>
      <Button @click="take({ ...PLAIN_BLOCK, name: block.name })">Begin with the plain one</Button>
      <Button @click="emit('close')">Leave it</Button>
    </div>
  </Modal>
</template>

<style scoped src="./panel.css"></style>
<style scoped src="./blockDialog.css"></style>
