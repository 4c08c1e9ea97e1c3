<script setup lang="ts">
import { changeBlock } from '@lathica/core/edit'
import { Button } from 'ant-design-vue'
import { computed, defineAsyncComponent, ref } from 'vue'
import { usePartStore } from '../store/part'
import { useSheetStore } from '../store/sheet'
import { useTitleBlocksStore } from '../store/titleBlocks'
import PlainSelect from '../ui/PlainSelect.vue'

/** Which title block stands on the sheets: the plain one, or one of one's own. */
const BlockDialog = defineAsyncComponent(() => import('./BlockDialog.vue'))
const parts = usePartStore()
const sheet = useSheetStore()
const library = useTitleBlocksStore()
void library.load()
const editing = ref(false)

const own = computed(() => sheet.all.block)
/** The part's own block is one that is kept, as it is, or stands in this part alone. */
const kept = computed(() =>
  library.kept.findIndex((b) => JSON.stringify(b) === JSON.stringify(own.value)),
)
const PLAIN = 'plain'
const HERE = 'here'
const options = computed(() => [
  { value: PLAIN, label: 'plain' },
  ...(own.value && kept.value < 0
    ? [{ value: HERE, label: `${own.value.name || 'own'} (of this part)` }]
    : []),
  ...library.kept.map((b, i) => ({ value: `kept${i}`, label: b.name })),
])
const chosen = computed(() => (!own.value ? PLAIN : kept.value < 0 ? HERE : `kept${kept.value}`))

function choose(value: string): void {
  if (value === HERE || value === chosen.value) return
  parts.run(changeBlock(library.kept[Number(value.replace('kept', ''))]))
}
</script>

<template>
  <label for="title-block">Block</label>
  <div class="choice">
    <PlainSelect
      id="title-block"
      :options="options"
      :model-value="chosen"
      @update:model-value="choose"
    />
    <Button size="small" @click="editing = true">Edit …</Button>
    <BlockDialog v-if="editing" @close="editing = false" />
  </div>
</template>

<style scoped>
.choice {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
}
</style>
