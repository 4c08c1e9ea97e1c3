<script setup lang="ts">
import type { ProfileFault } from '@lathica/core/section'
import type { Part } from '@lathica/core/part'
import { faultProblem, lostCorners } from '@lathica/core/route'
import {
  closeGap,
  cutAtAxis,
  dropZeroLength,
  mergeDoubled,
  removeItems,
  type Command,
} from '@lathica/core/edit'
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

/** What is said of one fault, or of several that one mend puts right. */
interface Note {
  readonly key: string
  readonly message: string
  readonly said: string
  readonly entities: readonly string[]
  readonly mends: readonly Mend[]
  /** False for what is only not finished yet. */
  readonly urgent: boolean
}

const notes = computed<Note[]>(() => {
  const { part } = parts
  if (!part || board.sketch.entities.length === 0) return []
  const found = board.sketchState?.profile.faults ?? []
  const loose = looseEnds(
    part,
    found.filter((f) => f.kind === 'open'),
  )
  return [...lostLinks(), ...unsound(part, found), ...(loose ? [loose] : [])]
})

function unsound(part: Part, found: readonly ProfileFault[]): Note[] {
  const below = found.filter((f) => f.kind === 'belowAxis').flatMap((f) => f.entities)
  const firstBelow = found.find((f) => f.kind === 'belowAxis')
  return found
    .filter((f) => f.kind !== 'open')
    .map((fault) => {
      const { message, mend } = faultProblem(fault, board.sketch, part)
      // One cut mends all that crosses the axis, so it is offered once.
      const mended = fault.kind === 'belowAxis' && fault !== firstBelow
      const mends = mended ? [] : mendsOf(fault, below)
      return { key: message, message, said: mend, entities: fault.entities, mends, urgent: true }
    })
}

/** Loose ends in one note; a chain that is being drawn is not called open yet. */
function looseEnds(part: Part, ends: readonly ProfileFault[]): Note | undefined {
  // An end on the axis only waits for the other one to come back to it.
  const first = ends.find((f) => f.at.y > 1e-6) ?? ends[0]
  if (!first || board.toolState?.overlay?.rubber) return undefined
  const { message, mend } = faultProblem(first, board.sketch, part)
  const more = ends.length > 2 ? `${ends.length - 1} more ends are loose. ` : ''
  return {
    key: 'loose',
    message,
    said: `${more}${mend}`,
    entities: ends.flatMap((f) => f.entities),
    mends: ends.length > 1 ? mendsOf(first, []) : [],
    urgent: false,
  }
}

/** Points that followed what is gone; they stay where they were until one says otherwise. */
function lostLinks(): Note[] {
  const { part, state } = parts
  const corners = part && state ? lostCorners(part, state, board.sketch) : []
  const lost = [...(board.sketchState?.lostLinks ?? []), ...corners]
  if (lost.length === 0) return []
  const message =
    lost.length === 1
      ? 'A point follows a corner that is gone.'
      : `${lost.length} points follow corners that are gone.`
  const mends = [{ label: 'Let go of it', command: (id: string) => removeItems(id, lost) }]
  const said = 'What followed stays where it was.'
  return [{ key: 'lost', message, said, entities: lost, mends, urgent: true }]
}

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
</script>

<template>
  <div
    v-for="{ key, message, said, entities, mends, urgent } in notes"
    :key="key"
    class="problem"
    :class="{ note: !urgent }"
    :role="urgent ? 'alert' : undefined"
  >
    <strong>{{ message }}</strong> {{ said }}
    <button type="button" class="plain" @click="board.picks = [...entities]">Show</button>
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
</template>

<style scoped src="./card.css"></style>
