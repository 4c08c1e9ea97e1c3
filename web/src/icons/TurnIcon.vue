<script setup lang="ts">
import { ICONS, type IconName } from './paths'

defineProps<{ name: IconName }>()
</script>

<template>
  <svg class="turn-icon" viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
    <path :d="ICONS[name]" />
  </svg>
</template>

<style scoped>
.turn-icon {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
