<script setup lang="ts">
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import PicksCard from './PicksCard.vue'
import ProfileCard from './ProfileCard.vue'
import RevolveCard from './RevolveCard.vue'
import UnknownCard from './UnknownCard.vue'

const board = useBoardStore()
const parts = usePartStore()
const step = computed(() => parts.part?.route.find((s) => s.id === board.stepId))
</script>

<template>
  <section class="card" aria-label="Step card">
    <PicksCard v-if="board.picks.length > 0" />
    <RevolveCard v-else-if="step?.kind === 'revolve'" :key="step.id" :step="step" />
    <UnknownCard v-else-if="step" :key="step.id" :step="step" />
    <ProfileCard v-else />
  </section>
</template>

<style scoped>
.card {
  overflow: auto;
  min-height: 0;
  padding: 12px 14px;
}
</style>
