<script setup lang="ts">
import { computed } from 'vue'
import type { IconName } from '../icons/paths'
import { usePartStore } from '../store/part'
import { DISPLAYS, useLookStore, type Cut, type Display, type ViewName } from '../store/look'
import PlainSelect from '../ui/PlainSelect.vue'
import TurnButton from '../ui/TurnButton.vue'
import { DISPLAY_WORDS, viewWords } from './words'

/** How the part is looked at: from where, drawn in what way, cut where. */
defineEmits<{ picture: [] }>()
const look = useLookStore()
const parts = usePartStore()

const displays = DISPLAYS.map((value) => ({ value, label: DISPLAY_WORDS[value] }))
const VIEW_ICONS: readonly (readonly [ViewName, IconName])[] = [
  ['threeQuarter', 'viewThreeQuarter'],
  ['front', 'viewFront'],
  ['otherThreeQuarter', 'viewOtherThreeQuarter'],
  ['otherEnd', 'viewOtherEnd'],
  ['top', 'viewTop'],
  ['end', 'viewEnd'],
]
const CUT_ICONS: readonly (readonly [Cut, IconName, string])[] = [
  ['half', 'cutHalf', 'Half cut'],
  ['quarter', 'cutQuarter', 'Quarter cut'],
  ['across', 'cutAcross', 'Cut across the axis'],
  ['beside', 'cutBeside', 'Cut beside the axis'],
  ['aslant', 'cutAslant', 'Cut aslant'],
]
const views = computed(() =>
  VIEW_ICONS.map(([view, icon], i) => ({ view, icon, ...viewWords(view, parts.lie), key: i + 1 })),
)
</script>

<template>
  <div class="tools" data-floats>
    <div class="row">
      <PlainSelect
        id="display"
        class="display"
        aria-label="Display"
        :model-value="look.display"
        :options="displays"
        @update:model-value="look.display = $event as Display"
      />
      <TurnButton
        v-for="[cut, icon, words] in CUT_ICONS"
        :key="cut"
        :icon="icon"
        :label="words"
        :title="`${words}${look.cutKind === cut ? ' (H)' : ''}`"
        :pressed="look.cut === cut"
        @click="look.chooseCut(cut)"
      />
      <TurnButton
        icon="perspective"
        label="Perspective"
        title="Perspective (K)"
        :pressed="look.perspective"
        @click="look.perspective = !look.perspective"
      />
      <TurnButton
        icon="spin"
        label="Spin about the axis"
        title="Spin about the axis (O)"
        :pressed="look.spinning"
        @click="look.spinning = !look.spinning"
      />
      <TurnButton
        icon="pointsInSpace"
        label="Points of the profile"
        title="Points of the profile in hand, to be pulled here (Alt+P)"
        :pressed="look.points"
        @click="look.points = !look.points"
      />
      <TurnButton icon="picture" label="Save a picture" @click="$emit('picture')" />
    </div>
    <label
      v-if="look.cut === 'across' || look.cut === 'beside' || look.cut === 'aslant'"
      class="row at"
    >
      <span>cut at</span>
      <input
        v-model.number="look.cutAt"
        type="range"
        min="0"
        max="1"
        step="0.005"
        aria-label="Place of the cut"
      />
    </label>
    <label v-if="look.cut === 'aslant'" class="row at">
      <span>leaning</span>
      <input
        v-model.number="look.cutTilt"
        type="range"
        min="5"
        max="85"
        step="1"
        aria-label="Lean of the cut"
        :aria-valuetext="`${look.cutTilt}° from the axis`"
      />
      <span class="figure">{{ look.cutTilt }}°</span>
    </label>
  </div>
  <div class="compass" role="group" aria-label="Views" data-floats>
    <TurnButton
      v-for="v in views"
      :key="v.view"
      :icon="v.icon"
      :label="v.words"
      :title="`${v.words} (Alt+${v.key})`"
      @click="look.ask(v.view)"
    />
  </div>
</template>

<style scoped>
.tools {
  position: absolute;
  left: 8px;
  top: 6px;
  max-width: calc(100% - 116px);
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 1px;
}

.display {
  width: 118px;
  margin-right: 6px;
}

.at {
  gap: 8px;
  padding: 4px 2px;
  color: var(--ink-soft);
  font-size: 12px;
}

.at span:first-child {
  width: 48px;
}

.at input {
  width: 150px;
  accent-color: var(--accent);
}

.compass {
  position: absolute;
  right: 8px;
  top: 6px;
  display: grid;
  grid-template-columns: repeat(3, auto);
  gap: 1px;
}
</style>
