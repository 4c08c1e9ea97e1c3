<script setup lang="ts">
import { STOCK_MATERIALS, type Material } from '@lathica/core'
import { computed } from 'vue'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

const props = defineProps<{ modelValue: string; id: string }>()
const emit = defineEmits<{ 'update:modelValue': [material: Material] }>()
const parts = usePartStore()

/** The part's own materials first: a file may bring some that are not in stock. */
const materials = computed(() => {
  const own = parts.materials
  return [...own, ...STOCK_MATERIALS.filter((m) => !own.some((o) => o.id === m.id))]
})
const options = computed(() =>
  [...materials.value]
    .sort((a, b) => a.name.localeCompare(b.name, 'en'))
    .map((m) => ({ value: m.id, label: m.name })),
)

function choose(id: string): void {
  const material = materials.value.find((m) => m.id === id)
  if (material) emit('update:modelValue', material)
}
</script>

<template>
  <PlainSelect
    :id="props.id"
    :model-value="props.modelValue"
    :options="options"
    @update:model-value="choose"
  />
</template>
