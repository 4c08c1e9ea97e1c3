<script setup lang="ts">
import type { UnknownStep } from '@lathica/core/part'
import { removeStep } from '@lathica/core/edit'
import { Button } from 'ant-design-vue'
import { usePartStore } from '../store/part'

defineProps<{ step: UnknownStep }>()
const parts = usePartStore()
</script>

<template>
  <h2>{{ step.number }} {{ String(step.kept['kind']) }}</h2>
  <p class="problem">
    <strong>This version does not know this step.</strong> It is kept in the part as it is and does
    nothing here; open the part with the version that made it.
  </p>
  <div class="buttons">
    <Button danger @click="parts.run(removeStep(step.id))">Delete step</Button>
  </div>
</template>

<style scoped src="./card.css"></style>
