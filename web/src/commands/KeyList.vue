<script setup lang="ts">
import { onMounted, useTemplateRef } from 'vue'
import { keyLabel } from './keys'
import type { Action } from './registry'

const props = defineProps<{ actions: readonly Action[] }>()
const emit = defineEmits<{ close: [] }>()

const dialog = useTemplateRef<HTMLDialogElement>('dialog')
onMounted(() => dialog.value?.showModal())

const rows = [
  ...props.actions.flatMap((a) => (a.key ? [[keyLabel(a.key), a.label, a.help]] : [])),
  ['1 … 6', 'Pages', 'Turns the tool pad’s pages: draw, edit, tie, turn, mill, note.'],
  ['Esc', 'Back', 'Steps back one level: the field, the chain, the tool, the picks.'],
  ['Tab', 'Next', 'Takes another measure, or the value and goes to the next size.'],
  ['Enter', 'Take', 'Takes a value; ends a chain.'],
  ['Shift', 'Refuse', 'While drawing refuses suggestions; while picking adds.'],
  ['← → ↑ ↓', 'Step', 'With the board in focus: goes from one point or line to the next.'],
  ['/', 'Search', 'Searches every command.'],
  ['?', 'Keys', 'Shows this list.'],
]
</script>

<template>
  <dialog
    ref="dialog"
    aria-labelledby="keys-title"
    @close="emit('close')"
    @click.self="dialog?.close()"
  >
    <header>
      <h2 id="keys-title">Keys</h2>
      <button type="button" class="plain" aria-label="Close" @click="dialog?.close()">×</button>
    </header>
    <table>
      <tbody>
        <tr v-for="[key, label, help] in rows" :key="label">
          <td>
            <kbd>{{ key }}</kbd>
          </td>
          <th scope="row">{{ label }}</th>
          <td>{{ help }}</td>
        </tr>
      </tbody>
    </table>
  </dialog>
</template>

<style scoped>
dialog {
  width: min(680px, 92vw);
  max-height: 88vh;
  padding: 14px 18px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
  color: var(--ink);
  box-shadow: 0 4px 18px rgb(30 42 50 / 22%);
}

dialog::backdrop {
  background: rgb(30 42 50 / 20%);
}

header {
  display: flex;
  justify-content: space-between;
  margin-bottom: 8px;
}

h2 {
  font-size: 15px;
}

table {
  width: 100%;
  border-collapse: collapse;
}

td,
th {
  padding: 2px 8px 2px 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  vertical-align: top;
  white-space: nowrap;
}

td:last-child {
  white-space: normal;
}
</style>
