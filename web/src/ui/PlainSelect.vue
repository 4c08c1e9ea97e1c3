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

<style scoped>
.plain-select {
  width: 100%;
  height: 30px;
  padding: 0 26px 0 8px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background-color: var(--panel);
  background-image:
    linear-gradient(45deg, transparent 50%, var(--ink-soft) 50%),
    linear-gradient(135deg, var(--ink-soft) 50%, transparent 50%);
  background-position:
    right 14px center,
    right 9px center;
  background-size: 5px 5px;
  background-repeat: no-repeat;
  appearance: none;
  color: var(--ink);
  cursor: pointer;
  text-overflow: ellipsis;
}

.plain-select:hover {
  border-color: var(--halo);
}
</style>
