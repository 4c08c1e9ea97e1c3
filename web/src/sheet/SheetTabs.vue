<script setup lang="ts">
import { Plus, X } from 'lucide-vue-next'
import { useSheetStore } from '../store/sheet'
import IconButton from '../ui/IconButton.vue'

/** The sheets of the part: one is shown, more can be added. */
const sheet = useSheetStore()
</script>

<template>
  <nav class="sheet-tabs" aria-label="Sheets">
    <button
      v-for="(s, i) in sheet.all.sheets"
      :key="s.id"
      type="button"
      class="plain tab"
      :aria-current="s.id === sheet.setup.id ? 'page' : undefined"
      @click="sheet.show(s.id)"
    >
      Sheet {{ i + 1 }}<span v-if="s.name !== ''" class="soft">, {{ s.name }}</span>
    </button>
    <IconButton label="Add a sheet" @click="sheet.add()"><Plus :size="14" /></IconButton>
    <IconButton
      v-if="sheet.all.sheets.length > 1"
      label="Take this sheet off"
      @click="sheet.remove()"
    >
      <X :size="14" />
    </IconButton>
  </nav>
</template>

<style scoped>
.sheet-tabs {
  display: flex;
  gap: 4px;
  align-items: center;
  padding: 0 10px;
  border-bottom: 1px solid var(--rule);
  background: var(--panel);
}

.tab {
  padding: 5px 10px;
  border-bottom: 2px solid transparent;
  color: var(--ink-soft);
}

.tab[aria-current='page'] {
  border-color: var(--accent);
  color: var(--ink);
}

.soft {
  color: inherit;
}
</style>
