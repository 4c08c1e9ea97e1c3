<script setup lang="ts">
import type { Material } from '@lathica/core/part'
import { computed, onMounted, ref } from 'vue'
import { useLibraryStore } from '../store/library'
import { usePartStore } from '../store/part'
import MaterialDialog from './MaterialDialog.vue'

/** A choice among the part's own materials, the library's and those in stock. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{ modelValue: string; id: string }>()
const emit = defineEmits<{ 'update:modelValue': [material: Material] }>()
const parts = usePartStore()
const library = useLibraryStore()
onMounted(() => void library.load())
const editing = ref(false)
const EDIT = '~edit'

const LOOK_WORDS: Readonly<Record<Material['look'], string>> = {
  metal: 'metals',
  plastic: 'plastics',
  glass: 'glass',
  ceramic: 'ceramics',
  wood: 'woods',
  fabric: 'fabric and the like',
}

/** The part's own first: a file may bring some that are not in the library. */
const materials = computed(() => {
  const seen = new Set<string>()
  return [...parts.materials, ...library.all].filter(
    ({ id }) => !seen.has(id) && seen.add(id).size > 0,
  )
})
const groups = computed(() => {
  const own = new Set(library.own.map((m) => m.id))
  const byName = (a: Material, b: Material): number => a.name.localeCompare(b.name, 'en')
  const kinds = Object.keys(LOOK_WORDS) as Material['look'][]
  return [
    { name: 'own', items: materials.value.filter((m) => own.has(m.id)) },
    ...kinds.map((look) => ({
      name: LOOK_WORDS[look],
      items: materials.value.filter((m) => m.look === look && !own.has(m.id)),
    })),
  ]
    .filter((g) => g.items.length > 0)
    .map((g) => ({ ...g, items: [...g.items].sort(byName) }))
})

function choose(event: Event): void {
  const select = event.target as HTMLSelectElement
  if (select.value === EDIT) {
    select.value = props.modelValue
    editing.value = true
    return
  }
  take(select.value)
}
function take(id: string): void {
  const material = materials.value.find((m) => m.id === id)
  if (material) emit('update:modelValue', material)
}
</script>

<template>
  <select
    v-bind="$attrs"
    :id="props.id"
    class="plain-select"
    :value="props.modelValue"
    @change="choose"
  >
    <optgroup v-for="g in groups" :key="g.name" :label="g.name">
      <option v-for="m in g.items" :key="m.id" :value="m.id">{{ m.name }}</option>
    </optgroup>
    <option :value="EDIT">own materials …</option>
  </select>
  <MaterialDialog v-if="editing" @take="take" @close="editing = false" />
</template>

<style scoped src="../ui/plainSelect.css"></style>
