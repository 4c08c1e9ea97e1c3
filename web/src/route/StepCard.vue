<script setup lang="ts">
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { useLookStore } from '../store/look'
import { useNotesStore } from '../store/notes'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import BodyCard from './BodyCard.vue'
import NoteCard from './NoteCard.vue'
import PicksCard from './PicksCard.vue'
import ShapeCheckCard from './ShapeCheckCard.vue'
import ProfileCard from './ProfileCard.vue'
import TurnedCard from './steps/TurnedCard.vue'
import UnknownCard from './UnknownCard.vue'

const board = useBoardStore()
const parts = usePartStore()
const route = useRouteStore()
const look = useLookStore()
const notes = useNotesStore()
/** As it was taken last: what is being typed is on the drawing, not yet in the step. What is dragged is in both. */
const step = computed(() => {
  const part = route.isGripped ? parts.part : parts.history?.part
  return part?.route.find((s) => s.id === board.stepId)
})
const body = computed(() => parts.bodies.find((b) => b.id === route.bodyId))
</script>

<template>
  <section class="card" aria-label="Step card">
    <ShapeCheckCard v-if="look.check !== 'none'" />
    <PicksCard v-if="board.picks.length > 0" />
    <UnknownCard v-else-if="step?.kind === 'unknown'" :key="step.id" :step="step" />
    <TurnedCard v-else-if="step" :key="`turned ${step.id}`" :step="step" />
    <NoteCard v-else-if="notes.open" :key="`note ${notes.open.note.id}`" :state="notes.open" />
    <BodyCard v-else-if="body" :key="`body ${body.id}`" :body="body" />
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
