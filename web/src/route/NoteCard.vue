<script setup lang="ts">
import { changeNote, noteWhere, removeNote, type NoteState } from '@lathica/core/notes'
import type { Note } from '@lathica/core/part'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { looksOf } from '../notes/kinds'
import type { NoteField } from '../notes/kind'
import { useNotesStore } from '../store/notes'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

/** The fields of one note. What is typed is kept even where it has no meaning. */
const props = defineProps<{ state: NoteState }>()
const parts = usePartStore()
const notes = useNotesStore()

const note = computed(() => props.state.note)
const looks = computed(() => looksOf(note.value.kind))
const setting = computed(() => {
  const { units, lie, part } = parts
  return part && { state: props.state, units, lie, part: parts.history?.part ?? part }
})
const fields = computed(() => (setting.value ? looks.value.fields(note.value, setting.value) : []))
const figures = computed(
  () => (setting.value && looks.value.figures?.(note.value, setting.value)) ?? [],
)
const works = computed(
  () => (setting.value && looks.value.works?.(note.value, setting.value)) ?? [],
)
const mends = computed(() => works.value.filter((w) => w.mends === props.state.problem?.code))
const offered = computed(() => works.value.filter((w) => w.mends === undefined))
const firstTyped = computed(
  () => (fields.value.find((f) => f.kind === 'typed') ?? fields.value[0])?.id,
)
const where = computed(() => noteWhere(props.state, parts))

function take(field: NoteField, value: string): void {
  const now = field.kind === 'typed' ? field.text : field.value
  if (value !== now) parts.run(changeNote({ ...note.value, ...field.take(value) } as Note))
}
/** Esc leaves the field, so that keys are for the board again; what is open stays. */
function leave(event: KeyboardEvent): void {
  if (event.target instanceof HTMLElement) event.target.blur()
}
/** Its plate is laid by the board again. */
function putBack(): void {
  const { label: _, ...rest } = note.value
  parts.run(changeNote(rest as Note))
}
function remove(): void {
  const { id } = note.value
  notes.noteId = undefined
  parts.run(removeNote(id))
}
</script>

<template>
  <div class="note-card" @keydown.esc.stop="leave">
    <h2>{{ looks.title }}</h2>
    <dl class="fields">
      <dt>On</dt>
      <dd>{{ where }}</dd>
      <template v-for="field in fields" :key="field.id">
        <dt>
          <label :for="`note-${field.id}`">{{ field.label }}</label>
        </dt>
        <dd>
          <PlainSelect
            v-if="field.kind === 'choice'"
            :id="`note-${field.id}`"
            :data-first="field.id === firstTyped ? '' : undefined"
            :model-value="field.value"
            :options="field.options"
            @update:model-value="take(field, $event)"
          />
          <input
            v-else-if="field.kind === 'colour'"
            :id="`note-${field.id}`"
            type="color"
            :value="field.value"
            @change="take(field, ($event.target as HTMLInputElement).value)"
          />
          <template v-else>
            <input
              :id="`note-${field.id}`"
              :data-first="field.id === firstTyped ? '' : undefined"
              class="text figure"
              :list="field.offers ? `note-${field.id}-offers` : undefined"
              :value="field.text"
              :placeholder="field.empty"
              :maxlength="field.longest"
              :aria-label="field.said"
              @change="take(field, ($event.target as HTMLInputElement).value)"
              @keydown.enter="leave"
              @keydown.esc="leave"
              @keydown.stop
            />
            <datalist v-if="field.offers" :id="`note-${field.id}-offers`">
              <option v-for="offer in field.offers" :key="offer" :value="offer" />
            </datalist>
          </template>
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
        v-for="work in mends"
        :key="work.label"
        type="button"
        class="plain mend"
        @click="parts.run(work.command)"
      >
        {{ work.label }}
      </button>
    </div>
    <div v-if="offered.length > 0 || note.label" class="works">
      <Button
        v-for="work in offered"
        :key="work.label"
        size="small"
        @click="parts.run(work.command)"
      >
        {{ work.label }}
      </Button>
      <Button v-if="note.label" size="small" @click="putBack">Place by itself</Button>
    </div>
    <div class="buttons">
      <Button type="primary" @click="notes.noteId = undefined">Done</Button>
      <Button danger @click="remove">Delete note</Button>
    </div>
  </div>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.works {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 4px 0 8px;
}
</style>
