<script setup lang="ts">
import { ref, watch } from 'vue'
import { escape } from '../../commands/escape'
import { undoFromField } from './fieldUndo'

/** Words in a step's card, taken by Enter, Tab or leaving the field; Esc brings the old ones back. */
const props = defineProps<{ id: string; label: string; text: string; empty: string }>()
const emit = defineEmits<{ take: [text: string] }>()
const typed = ref(props.text)
watch(
  () => props.text,
  (text) => (typed.value = text),
)

function take(): void {
  if (typed.value.trim() !== props.text) emit('take', typed.value.trim())
}

function onEscape(): void {
  if (typed.value === props.text) escape()
  else typed.value = props.text
}
</script>

<template>
  <span class="value">
    <input
      :id="id"
      v-model="typed"
      class="figure"
      :aria-label="label"
      :placeholder="empty"
      maxlength="120"
      spellcheck="false"
      autocomplete="off"
      @keydown.enter.prevent="take"
      @keydown.esc.stop.prevent="onEscape"
      @keydown.stop="undoFromField($event, typed === text)"
      @blur="take"
    />
  </span>
</template>

<style scoped src="../../ui/valueField.css"></style>
