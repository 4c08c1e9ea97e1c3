<script setup lang="ts" generic="T extends string">
/** A choice from a short list: the browser's own control, which every key and reader knows. */
defineProps<{
  id: string
  options: readonly { readonly value: T; readonly label: string }[]
}>()
const chosen = defineModel<T>({ required: true })
</script>

<template>
  <select :id="id" v-model="chosen" class="plain-select">
    <option v-for="o in options" :key="o.value" :value="o.value">{{ o.label }}</option>
  </select>
</template>

<style scoped src="./plainSelect.css"></style>
