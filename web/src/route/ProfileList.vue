<script setup lang="ts">
import { isAcross } from '@lathica/core/sketch'
import { changeSketch } from '@lathica/core/edit'
import { useBoardStore } from '../store/board'
import { usePartStore, type ListedProfile } from '../store/part'
import { useOpening } from './opening'

/** The part's profiles in order, each to be taken in hand, shown behind the others, or locked. */
const parts = usePartStore()
const board = useBoardStore()
const { openProfile } = useOpening()

const whatOf = ({ plane, steps }: ListedProfile): string =>
  [isAcross(plane) ? 'end sketch' : '', steps === '' ? 'in no step' : `in ${steps}`]
    .filter((w) => w !== '')
    .join(', ')
</script>

<template>
  <template v-if="parts.profiles.length > 1">
    <h3>Profiles</h3>
    <ul aria-label="Profiles">
      <li v-for="p in parts.profiles" :key="p.id" :class="{ current: p.id === board.sketch.id }">
        <button
          type="button"
          class="plain name"
          :aria-current="p.id === board.sketch.id"
          @click="openProfile(p.id)"
        >
          {{ p.name }} <span class="soft">{{ whatOf(p) }}</span>
        </button>
        <button
          type="button"
          class="plain way"
          :aria-label="`${p.locked ? 'unlock' : 'lock'} profile ${p.name}`"
          :aria-pressed="p.locked"
          title="Nothing in a locked profile is changed by hand"
          @click="parts.run(changeSketch(p.id, { locked: !p.locked }))"
        >
          {{ p.locked ? 'locked' : 'lock' }}
        </button>
        <button
          type="button"
          class="plain way"
          :aria-label="`${p.shown ? 'hide' : 'show'} profile ${p.name}`"
          title="Drawn in fine lines while another profile is in hand"
          @click="parts.run(changeSketch(p.id, { shown: !p.shown }))"
        >
          {{ p.shown ? 'hide' : 'show' }}
        </button>
      </li>
    </ul>
  </template>
</template>

<style scoped src="./nameList.css"></style>
