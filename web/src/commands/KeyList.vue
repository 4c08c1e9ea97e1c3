<script setup lang="ts">
import { Modal } from 'ant-design-vue'
import { keyLabel } from './keys'
import type { Action } from './registry'

const props = defineProps<{ actions: readonly Action[] }>()
const emit = defineEmits<{ close: [] }>()

const rows = [
  ...props.actions.flatMap((a) => (a.key ? [[keyLabel(a.key), a.label, a.help]] : [])),
  ['1 2 3', 'Pages', 'Turns the tool pad’s pages: draw, tie, turn.'],
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
  <Modal open title="Keys" :footer="null" width="640px" @cancel="emit('close')">
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
  </Modal>
</template>

<style scoped>
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
