<script setup lang="ts">
import type { IconName } from '../icons/paths'
import TurnIcon from '../icons/TurnIcon.vue'

/** A small button with an icon of turned work; its label is read aloud, its title shown on hover. */
defineProps<{
  icon: IconName
  label: string
  title?: string
  /** For what is on or off. */
  pressed?: boolean | undefined
}>()
</script>

<template>
  <button
    type="button"
    class="plain turn-button"
    :title="title ?? label"
    :aria-label="label"
    :aria-pressed="pressed"
  >
    <TurnIcon :name="icon" />
  </button>
</template>

<style scoped>
.turn-button {
  display: grid;
  place-items: center;
  padding: 3px;
  color: var(--ink-soft);
}

.turn-button:hover:not(:disabled) {
  color: var(--ink);
}

.turn-button:disabled {
  opacity: 0.45;
}

.turn-button[aria-pressed='true'],
.turn-button[aria-pressed='true']:hover {
  background: var(--ink);
  color: var(--on-ink);
}
</style>
