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
  <button type="button" class="report" @click="save">Save the part as a report</button>
</template>

<style scoped>
.report {
  margin: 0 0 6px 44px;
  padding: 2px 8px;
  border: 1px solid currentcolor;
  border-radius: 3px;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
</style>
