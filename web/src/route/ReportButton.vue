<script setup lang="ts">
import { writePartFile } from '@lathica/core/formats'
import { saveFile } from '../dispatch/saveFile'
import { usePartStore } from '../store/part'

/** Saves the part as it stands, where a step failed by a mistake of the computation itself. */
const parts = usePartStore()

function save(): void {
  const { part } = parts
  if (part) saveFile(writePartFile(part), `${part.name} report.lathica.json`, 'application/json')
}
</script>

<template>
  <div class="report">
    <button type="button" @click="save">Save the part as a report</button>
  </div>
</template>

<style scoped>
.report {
  padding: 0 14px 9px 46px;
  border-bottom: 1px solid var(--rule);
}

button {
  padding: 2px 8px;
  border: 1px solid currentcolor;
  border-radius: 3px;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
</style>
