<script setup lang="ts">
import {
  closeGap,
  cutAtAxis,
  dropZeroLength,
  faultProblem,
  mergeDoubled,
  removeItems,
  type Command,
  type ProfileFault,
} from '@lathica/core'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** Places where the outline is not sound, each with what mends it. */
const board = useBoardStore()
const parts = usePartStore()

interface Mend {
  readonly label: string
  readonly command: (sketchId: string) => Command
}

const faults = computed(() => {
  const { part } = parts
  if (!part || board.sketch.entities.length === 0) return []
  const found = board.sketchState?.profile.faults ?? []
  const below = found.filter((f) => f.kind === 'belowAxis').flatMap((f) => f.entities)
  const rest = found.filter((f) => f.kind !== 'open')
  const firstBelow = rest.find((f) => f.kind === 'belowAxis')
  return rest.map((fault) => ({
    fault,
    problem: faultProblem(fault, board.sketch, part),
    // One cut mends all that crosses the axis, so it is offered once.
    mends: fault.kind === 'belowAxis' && fault !== firstBelow ? [] : mendsOf(fault, below),
  }))
})

/** Loose ends in one note; a chain that is being drawn is not called open yet. */
const loose = computed(() => {
  const { part } = parts
  const ends = (board.sketchState?.profile.faults ?? []).filter((f) => f.kind === 'open')
  // An end on the axis only waits for the other one to come back to it.
  const first = ends.find((f) => f.at.y > 1e-6) ?? ends[0]
  if (!part || !first || board.toolState?.overlay?.rubber) return undefined
  return {
    fault: first,
    problem: faultProblem(first, board.sketch, part),
    more: ends.length - 1,
    entities: ends.flatMap((f) => f.entities),
    mends: ends.length > 1 ? mendsOf(first, []) : [],
  }
})

function mendsOf(fault: ProfileFault, below: readonly string[]): Mend[] {
  switch (fault.kind) {
    case 'open':
      return [
        { label: 'Close with a line', command: (id) => closeGap(id, fault.at, 'line') },
        { label: 'Pull together', command: (id) => closeGap(id, fault.at, 'pull') },
      ]
    case 'belowAxis':
      return [{ label: 'Cut at the axis', command: (id) => cutAtAxis(id, below) }]
    case 'doubled':
      return [{ label: 'Merge', command: (id) => mergeDoubled(id, fault.entities) }]
    case 'zeroLength':
      return [{ label: 'Delete it', command: (id) => dropZeroLength(id, fault.entities) }]
    case 'crossing':
      return []
  }
}

/** Points that followed what is gone; they stay where they were until one says otherwise. */
const lost = computed(() => board.sketchState?.lostLinks ?? [])

function show(ids: readonly string[]): void {
  board.picks = [...ids]
}
</script>

<template>
  <div v-if="lost.length > 0" class="problem" role="alert">
    <strong>
      {{ lost.length === 1 ? 'A point follows a corner' : `${lost.length} points follow corners` }}
      of another profile that {{ lost.length === 1 ? 'is' : 'are' }} gone.
    </strong>
    What followed stays where it was.
    <button type="button" class="plain" @click="show(lost)">Show</button>
    <button
      type="button"
      class="plain mend"
      @click="parts.run(removeItems(board.sketch.id, [...lost]))"
    >
      Let go of it
    </button>
  </div>
  <div
    v-for="{ fault, problem, mends } in faults"
    :key="problem.message"
    class="problem"
    role="alert"
  >
    <strong>{{ problem.message }}</strong> {{ problem.mend }}
    <button type="button" class="plain" @click="show(fault.entities)">Show</button>
    <button
      v-for="mend in mends"
      :key="mend.label"
      type="button"
      class="plain mend"
      @click="parts.run(mend.command(board.sketch.id))"
    >
      {{ mend.label }}
    </button>
  </div>
  <div v-if="loose" class="problem note">
    <strong>{{ loose.problem.message }}</strong>
    {{ loose.more > 1 ? `${loose.more} more ends are loose.` : '' }} {{ loose.problem.mend }}
    <button type="button" class="plain" @click="show(loose.entities)">Show</button>
    <button
      v-for="mend in loose.mends"
      :key="mend.label"
      type="button"
      class="plain mend"
      @click="parts.run(mend.command(board.sketch.id))"
    >
      {{ mend.label }}
    </button>
  </div>
</template>

<style scoped src="./card.css"></style>
