<script setup lang="ts">
import { NOTE_KINDS, addNote, noteWhere, offeredNote } from '@lathica/core/notes'
import { SAID_OF_ALL, type NoteKind } from '@lathica/core/part'
import { computed } from 'vue'
import { putNote } from '../commands/noteActions'
import { useNotesStore } from '../store/notes'
import { usePartStore } from '../store/part'
import { useOpening } from './opening'

/** What is said of the part's faces; each kind can be hidden on the board. */
const parts = usePartStore()
const notes = useNotesStore()
const { openNote } = useOpening()

const kinds = computed(() => [...new Set(notes.states.map((s) => s.note.kind))])
const nameOf = (kind: NoteKind): string => NOTE_KINDS[kind].name
/** Kinds that can still be said of all others. */
const ofAll = computed(() =>
  SAID_OF_ALL.filter((kind) => !notes.states.some((s) => s.note.kind === kind && s.note.on === '')),
)
function sayOfAll(kind: NoteKind): void {
  const { part } = parts
  if (part) putNote(() => addNote(offeredNote(part, kind, '', '')))
}
</script>

<template>
  <template v-if="notes.states.length > 0">
    <h3>Notes</h3>
    <ul aria-label="Notes">
      <li
        v-for="s in notes.states"
        :key="s.note.id"
        :class="{ current: notes.noteId === s.note.id }"
      >
        <button
          type="button"
          class="plain name"
          :aria-current="notes.noteId === s.note.id"
          :title="s.problem ? `${s.problem.message} ${s.problem.mend}` : undefined"
          @click="openNote(s.note.id)"
        >
          <b v-if="s.problem" class="wrong" aria-label="wrong">△ </b>{{ s.words }}
          <span class="soft">{{ noteWhere(s, parts) }}</span>
        </button>
      </li>
    </ul>
    <p class="kinds">
      <button
        v-for="kind in kinds"
        :key="kind"
        type="button"
        class="plain way"
        :aria-pressed="!notes.hidden.includes(kind)"
        :title="`Shows or hides every ${nameOf(kind)} on the board`"
        @click="notes.toggle(kind)"
      >
        {{ nameOf(kind) }}
      </button>
      <button
        v-for="kind in ofAll"
        :key="`all-${kind}`"
        type="button"
        class="plain way"
        :title="`Says one ${nameOf(kind)} for everything that has none of its own`"
        @click="sayOfAll(kind)"
      >
        + {{ nameOf(kind) }} of all others
      </button>
    </p>
  </template>
</template>

<style scoped src="./nameList.css"></style>
<style scoped>
.wrong {
  color: var(--conflict);
}

.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 4px;
  margin: 2px 10px 4px;
  font-size: 12px;
}
</style>
