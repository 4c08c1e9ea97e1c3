<script setup lang="ts">
import {
  addRevolve,
  disagreementProblem,
  faultProblem,
  findItem,
  type Problem,
} from '@lathica/core'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import ItemRow from './ItemRow.vue'
import ValueTable from './ValueTable.vue'

const board = useBoardStore()
const parts = usePartStore()

const solution = computed(() => board.sketchState?.solution)
const faults = computed<Problem[]>(() => {
  const { part } = parts
  const found = board.sketchState?.profile.faults ?? []
  if (!part || board.sketch.entities.length === 0) return []
  return found.filter((f) => f.kind !== 'open').map((f) => faultProblem(f, board.sketch, part))
})
/** Loose ends in one note; a chain that is being drawn is not called open yet. */
const loose = computed<{ problem: Problem; more: number; entities: string[] } | undefined>(() => {
  const { part } = parts
  const ends = (board.sketchState?.profile.faults ?? []).filter((f) => f.kind === 'open')
  // An end on the axis only waits for the other one to come back to it.
  const first = ends.find((f) => f.at.y > 1e-6) ?? ends[0]
  if (!part || !first || board.toolState?.overlay?.rubber) return undefined
  return {
    problem: faultProblem(first, board.sketch, part),
    more: ends.length - 1,
    entities: ends.flatMap((f) => f.entities),
  }
})
const disagreements = computed(() =>
  (solution.value?.disagreements ?? []).map((d) => ({
    kind: d.kind,
    problem: disagreementProblem(board.sketch, d),
    members: d.members.flatMap((id) => findItem(board.sketch, id) ?? []),
  })),
)
const sizeProblems = computed(() => [...(board.sketchState?.sizeProblems ?? [])])
const regions = computed(() => board.sketchState?.profile.section.regions.length ?? 0)
const turned = computed(
  () =>
    parts.part?.route.some((s) => s.kind === 'revolve' && s.sketch === board.sketch.id) === true,
)
const standing = computed(() => {
  const free = board.freedoms
  if (board.sketch.entities.length === 0) return 'empty'
  if (free === 0) return 'in ink: nothing can move'
  return free === 1 ? 'in pencil: 1 freedom left' : `in pencil: ${free} freedoms left`
})

function pickAll(ids: readonly string[] | undefined): void {
  board.picks = [...(ids ?? [])]
}

function revolve(): void {
  if (parts.run(addRevolve(board.sketch.id))) {
    board.stepId = parts.part?.route.at(-1)?.id
    board.fit()
  }
}
</script>

<template>
  <h2>Profile {{ board.sketch.name }}</h2>
  <dl class="fields">
    <dt>Stands</dt>
    <dd>{{ standing }}</dd>
    <dt>Encloses</dt>
    <dd>
      {{ regions === 0 ? 'no material yet' : regions === 1 ? '1 region' : `${regions} regions` }}
    </dd>
  </dl>

  <div v-for="d in disagreements" :key="d.problem.message" class="problem" role="alert">
    <strong>{{
      d.kind === 'conflict' ? 'These cannot all hold:' : 'These say the same twice:'
    }}</strong>
    <ul class="list">
      <ItemRow v-for="item in d.members" :key="item.id" :item="item" @open="pickAll([item.id])" />
    </ul>
    {{ d.problem.mend }}
  </div>
  <div v-for="[id, p] in sizeProblems" :key="id" class="problem" role="alert">
    <strong>{{ p.message }}</strong> {{ p.mend }}
    <button type="button" class="plain" @click="board.openField({ kind: 'size', id })">
      Open it
    </button>
  </div>
  <div v-for="p in faults" :key="p.message" class="problem" role="alert">
    <strong>{{ p.message }}</strong> {{ p.mend }}
    <button type="button" class="plain" @click="pickAll(p.involves)">Show</button>
  </div>

  <div v-if="loose" class="problem note">
    <strong>{{ loose.problem.message }}</strong>
    {{ loose.more > 1 ? `${loose.more} more ends are loose.` : '' }} {{ loose.problem.mend }}
    <button type="button" class="plain" @click="pickAll(loose.entities)">Show</button>
  </div>

  <div v-if="!turned && regions > 0" class="buttons">
    <Button type="primary" @click="revolve">Revolve <kbd>R</kbd></Button>
  </div>
  <ValueTable />
</template>

<style scoped src="./card.css"></style>
