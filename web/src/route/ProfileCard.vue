<script setup lang="ts">
import { unitScale } from '@lathica/core/units'
import { holePlaces, isEndSketch, type Size } from '@lathica/core/sketch'
import { findItem, measureOf } from '@lathica/core/constraints'
import { usesChain, usesSketch } from '@lathica/core/part'
import { disagreementProblem } from '@lathica/core/route'
import { changeSize, fittingValue } from '@lathica/core/edit'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { makeStep, revolveCut } from '../commands/makeStep'
import { drillHoles, extrude } from '../commands/millActions'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import FaultList from './FaultList.vue'
import ItemRow from './ItemRow.vue'
import MissingList from './MissingList.vue'
import ProfileFields from './ProfileFields.vue'
import PictureFields from './PictureFields.vue'
import SizeTable from './SizeTable.vue'
import ValueTable from './ValueTable.vue'

const board = useBoardStore()
const parts = usePartStore()

const solution = computed(() => board.sketchState?.solution)
const disagreements = computed(() =>
  (solution.value?.disagreements ?? []).map((d) => ({
    kind: d.kind,
    problem: disagreementProblem(board.sketch, d),
    members: d.members.flatMap((id) => findItem(board.sketch, id) ?? []),
    ways: d.kind === 'conflict' ? waysOut(d.members) : [],
  })),
)
/** For each size of a conflict the value at which it would hold, if there is one. */
function waysOut(members: readonly string[]): { size: Size; formula: string }[] {
  const { part } = parts
  return members.flatMap((id) => {
    const size = board.sketch.sizes.find((s) => s.id === id)
    const value = size && part ? fittingValue(part, board.sketch.id, id) : undefined
    if (!size || value === undefined) return []
    const scaled = value / unitScale(measureOf(size), parts.units)
    return [{ size, formula: String(Number(scaled.toPrecision(8))) }]
  })
}
const sizeProblems = computed(() => [...(board.sketchState?.sizeProblems ?? [])])
const regions = computed(() => board.sketchState?.profile.section.regions.length ?? 0)
/** What it encloses in words; how lines part that is not looked for while the profile is dragged. */
const enclosed = computed(() => {
  const n = regions.value
  if (n === 0) return 'no material yet'
  const words = n === 1 ? '1 region' : `${n} regions`
  if (parts.preview) return words
  const areas = board.sketchState?.profile.areas().all.filter((a) => a.solid).length ?? n
  return areas > n ? `${words}, parted by lines into ${areas}` : words
})
const own = computed(() => parts.route.filter((s) => usesSketch(s) && s.sketch === board.sketch.id))
const isEnd = computed(() => isEndSketch(board.sketch))
/** Where an end sketch would have holes. */
const places = computed(() => (isEnd.value ? holePlaces(board.sketch).length : 0))
const turned = computed(() => own.value.length > 0)
const stands = computed(() => board.sections.some((s) => s.regions.length > 0))
/** What a chain that need not close has become. */
const chained = computed(() => {
  const step = own.value.find(usesChain)
  if (!step) return undefined
  return step.kind === 'sweep' ? 'a chain that a rod runs along' : 'a chain that has a wall'
})
const standing = computed(() => {
  const free = board.freedoms
  if (board.isBlank) return 'empty'
  if (free === 0) return 'in ink: nothing can move'
  return free === 1 ? 'in pencil: 1 freedom left' : `in pencil: ${free} freedoms left`
})

function pickAll(ids: readonly string[] | undefined): void {
  board.picks = [...(ids ?? [])]
}
</script>

<template>
  <h2>{{ isEnd ? 'End sketch' : 'Profile' }} {{ board.sketch.name }}</h2>
  <dl class="fields">
    <dt>Stands</dt>
    <dd>{{ standing }}</dd>
    <dt>Encloses</dt>
    <dd>
      {{ chained ?? enclosed }}
    </dd>
  </dl>

  <div v-for="d in disagreements" :key="d.problem.message" class="problem" role="alert">
    <strong>{{
      d.kind === 'conflict' ? 'These cannot all hold:' : 'These say the same twice:'
    }}</strong>
    <ul class="list">
      <ItemRow v-for="item in d.members" :key="item.id" :item="item" @open="pickAll([item.id])" />
    </ul>
    <button
      v-for="way in d.ways"
      :key="way.size.id"
      type="button"
      class="plain mend"
      @click="parts.run(changeSize(board.sketch.id, way.size.id, way.formula))"
    >
      Change {{ way.size.name }} to {{ way.formula }}
    </button>
    {{ d.problem.mend }}
  </div>
  <div v-for="[id, p] in sizeProblems" :key="id" class="problem" role="alert">
    <strong>{{ p.message }}</strong> {{ p.mend }}
    <button type="button" class="plain" @click="board.openField({ kind: 'size', id })">
      Open it
    </button>
  </div>
  <FaultList />

  <div v-if="isEnd && !turned" class="buttons">
    <Button v-if="regions > 0" type="primary" @click="extrude('cut')">
      Extrude cut <kbd>5 F</kbd>
    </Button>
    <Button v-if="regions > 0" @click="extrude('add')">Extrude <kbd>5 D</kbd></Button>
    <Button v-if="places > 0" @click="drillHoles()">Holes <kbd>5 W</kbd></Button>
  </div>
  <div v-else-if="!turned && regions > 0" class="buttons">
    <Button type="primary" @click="makeStep('revolve')">Revolve <kbd>4 R</kbd></Button>
    <Button v-if="stands" @click="revolveCut()">Revolve cut <kbd>4 E</kbd></Button>
  </div>
  <ProfileFields />
  <MissingList />
  <SizeTable />
  <PictureFields />
  <ValueTable />
</template>

<style scoped src="./card.css"></style>
