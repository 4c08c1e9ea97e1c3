<script setup lang="ts">
import { Plus, X } from 'lucide-vue-next'
import { useSheetStore } from '../store/sheet'
import IconButton from '../ui/IconButton.vue'

/** The sheets of the part: one is shown, more can be added. */
const sheet = useSheetStore()
</script>

<template>
  <nav aria-label="Sheets">
    <button
      v-for="(s, i) in sheet.all.sheets"
      :key="s.id"
      type="button"
      class="plain tab"
      :aria-current="s.id === sheet.setup.id ? 'page' : undefined"
      @click="sheet.show(s.id)"
    >
      Sheet {{ i + 1 }}<span v-if="s.name !== ''">, {{ s.name }}</span>
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

<style scoped src="./tabs.css"></style>
<style scoped>
nav {
  background: var(--panel);
}
</style>
