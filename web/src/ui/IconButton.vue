<script setup lang="ts">
/** A button that is an icon; its label is read aloud, and shown on hover unless a title says more. */
defineProps<{ label: string; title?: string }>()
</script>

<template>
  <button type="button" class="plain icon-button" :title="title ?? label" :aria-label="label">
    <slot />
  </button>
</template>

<style scoped>
.icon-button {
  display: grid;
  place-items: center;
  padding: 5px;
  color: inherit;
}
</style>
