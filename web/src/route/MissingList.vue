<script setup lang="ts">
import { formatAngle, formatLength, unitScale } from '@lathica/core/units'
import { describeItem, measureOf, signOf } from '@lathica/core/constraints'
import {
  addSize,
  drawDraft,
  measureOffer,
  missingItems,
  proposalKey,
  type Proposal,
} from '@lathica/core/edit'
import { computed, ref, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** Sizes and constraints that would finish the profile, each to take or to skip. */
const parts = usePartStore()
const board = useBoardStore()
const open = ref(false)
const skipped = ref(new Set<string>())

watch(
  () => board.sketch.id,
  () => (skipped.value = new Set()),
)

const rows = computed(() => {
  const { part } = parts
  if (!open.value || !part || board.freedoms === 0) return []
  return missingItems(part, board.sketch.id, skipped.value).map((proposal) => ({
    proposal,
    key: proposalKey(proposal),
    words: wordsOf(proposal),
  }))
})

function wordsOf(proposal: Proposal): string {
  const { sketch } = board
  if (proposal.kind === 'tie') {
    return describeItem(sketch, { ...proposal.tie, id: '' } as (typeof sketch.constraints)[number])
  }
  const { offer } = proposal
  const value = measureOffer(sketch, offer)
  const figure =
    offer.kind === 'angle' ? formatAngle(value, parts.units) : formatLength(value, parts.units)
  const named = { ...offer, id: '', name: '', formula: '', reference: false }
  return `${describeItem(sketch, named).split(',')[0]}, ${signOf(offer)}${figure}`
}

/** The measured value as one would type it, so that taking it moves as good as nothing. */
function formulaOf(proposal: Proposal & { kind: 'size' }): string {
  const scaled =
    measureOffer(board.sketch, proposal.offer) / unitScale(measureOf(proposal.offer), parts.units)
  return String(Number(scaled.toFixed(2)) || Number(scaled.toPrecision(3)))
}

function take(proposal: Proposal): boolean {
  const { id } = board.sketch
  return parts.run(
    proposal.kind === 'size'
      ? addSize(id, proposal.offer, formulaOf(proposal))
      : drawDraft('add constraint', id, { points: {}, entities: [], ties: [proposal.tie] }),
  )
}

function takeAll(): void {
  for (const { proposal } of rows.value) if (!take(proposal)) return
}

function skip(key: string): void {
  skipped.value = new Set([...skipped.value, key])
}

/** Lights what a proposal stands on. */
function light(proposal: Proposal | undefined): void {
  board.proposed = proposal?.kind === 'size' ? proposal.offer : undefined
  if (proposal?.kind === 'tie') {
    const { tie } = proposal
    board.hover = 'line' in tie ? tie.line : 'a' in tie ? tie.a : undefined
  } else if (!proposal) board.hover = undefined
}
</script>

<template>
  <div v-if="board.freedoms > 0 && !board.isBlank" class="missing">
    <button type="button" class="plain" :aria-expanded="open" @click="open = !open">
      {{ open ? '▾' : '▸' }} What is missing?
    </button>
    <template v-if="open">
      <p v-if="rows.length === 0" class="soft">
        Nothing left to propose{{ skipped.size > 0 ? ' but what was skipped' : '' }}.
      </p>
      <ul aria-label="What is missing">
        <li
          v-for="{ proposal, key, words } in rows"
          :key="key"
          @pointerenter="light(proposal)"
          @pointerleave="light(undefined)"
        >
          <span>{{ words }}</span>
          <button type="button" class="plain" @click="(light(undefined), take(proposal))">
            Take
          </button>
          <button type="button" class="plain" @click="(light(undefined), skip(key))">Skip</button>
        </li>
      </ul>
      <button v-if="rows.length > 1" type="button" class="plain all" @click="takeAll">
        Take all {{ rows.length }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.missing {
  margin-top: 10px;
  font-size: 12px;
}

.missing > .plain:first-child {
  padding: 0;
  font-weight: 600;
}

ul {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  gap: 4px;
  border-bottom: 1px solid var(--rule);
}

li span {
  flex: 1;
  min-width: 0;
}

li:hover {
  background: var(--halo-wash);
}

.soft {
  margin: 4px 0;
  color: var(--ink-soft);
}

.all {
  margin-top: 6px;
  color: var(--accent-deep);
  font-weight: 600;
}
</style>
