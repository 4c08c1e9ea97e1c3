<script setup lang="ts">
import { BEARING_SEATS, FIT_ADVICE, fitOf, setFit, type FitSide } from '@lathica/core/vary'
import { limitSizes } from '@lathica/core/formula'
import type { MeasurePick } from '@lathica/core/part'
import { formatLength } from '@lathica/core/units'
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

/** How a land sits in a bore: its play at the limits, and fits to choose from. */
const props = defineProps<{ a: MeasurePick; b: MeasurePick }>()
const parts = usePartStore()

const fit = computed(() => {
  const part = parts.history?.part
  const found = part && fitOf(part, props.a, props.b)
  return found?.ok === true ? found.value : undefined
})
const mm = (value: number): string =>
  `${value < 0 ? '−' : ''}${formatLength(Math.abs(value), parts.units)}`
const sides = computed(() =>
  fit.value
    ? [
        { name: 'bore', side: fit.value.bore },
        { name: 'land', side: fit.value.land },
      ]
    : [],
)
const writtenOf = ({ contributions }: FitSide): string =>
  contributions.length === 1 ? (contributions[0]?.of.written ?? '') : ''
function limitsOf({ nominal, diameter }: FitSide): string {
  const limits = { upper: diameter.high - nominal, lower: diameter.low - nominal }
  return limitSizes(nominal, limits, 'length', parts.units).join(' … ')
}

const WORDS = {
  clearance: 'Play at every limit: a clearance fit.',
  interference: 'The land is always the greater one: an interference fit.',
  transition: 'Play or interference, as the two come out: a transition fit.',
} as const
const apart = computed(() => (fit.value ? fit.value.bore.nominal - fit.value.land.nominal : 0))

/** The zones of both about the nominal size, as bars on one scale. */
const zones = computed(() => {
  if (!fit.value) return undefined
  const base = fit.value.land.nominal
  const spans = sides.value.map(({ name, side }) => ({
    ...{ name, low: side.diameter.low - base, high: side.diameter.high - base },
  }))
  const [top, bottom] = [
    Math.max(0, ...spans.map((s) => s.high)),
    Math.min(0, ...spans.map((s) => s.low)),
  ]
  const extent = top - bottom || 1
  const y = (v: number): number => 8 + (84 * (top - v)) / extent
  return {
    zero: y(0),
    bars: spans.map((s, i) => ({
      ...{
        name: s.name,
        x: 70 + i * 90,
        y: y(s.high),
        height: Math.max(1.5, y(s.low) - y(s.high)),
      },
    })),
  }
})

const chosen = ref('')
const options = [
  { value: '', label: 'choose one for its use' },
  ...FIT_ADVICE.map(({ hole, shaft, use }) => ({
    value: `${hole}/${shaft}`,
    label: `${hole}/${shaft}  ${use}`,
  })),
]
const advice = computed(() => FIT_ADVICE.find((f) => `${f.hole}/${f.shaft}` === chosen.value))
function apply(): void {
  if (!fit.value || !advice.value) return
  parts.run(setFit(fit.value.land.pick, fit.value.bore.pick, advice.value))
}
</script>

<template>
  <section v-if="fit" class="fit" aria-label="Fit">
    <h2>Fit</h2>
    <table aria-label="Land and bore">
      <tbody>
        <tr v-for="{ name, side } in sides" :key="name">
          <th scope="row">{{ name }}</th>
          <td class="figure">⌀{{ mm(side.nominal) }} {{ writtenOf(side) }}</td>
          <td class="figure soft">{{ limitsOf(side) }}</td>
        </tr>
        <tr data-play>
          <th scope="row">play</th>
          <td class="figure" colspan="2">
            {{ mm(fit.play.low) }} to {{ mm(fit.play.high) }} {{ parts.units.length }}
          </td>
        </tr>
      </tbody>
    </table>
    <p>
      {{ WORDS[fit.kind] }}
      <span v-if="Math.abs(apart) > 1e-6" class="soft">
        The nominal diameters differ by {{ mm(apart) }} {{ parts.units.length }}.
      </span>
    </p>
    <svg
      v-if="zones"
      viewBox="0 0 250 100"
      role="img"
      :aria-label="`Zones of bore and land about ⌀${mm(fit.land.nominal)}`"
    >
      <line x1="10" x2="240" :y1="zones.zero" :y2="zones.zero" class="zero" />
      <template v-for="bar in zones.bars" :key="bar.name">
        <rect :x="bar.x" :y="bar.y" width="46" :height="bar.height" :class="bar.name" />
        <text :x="bar.x + 52" :y="bar.y + bar.height / 2 + 4">{{ bar.name }}</text>
      </template>
    </svg>
    <div class="choose">
      <PlainSelect id="fit-use" v-model="chosen" aria-label="fits by use" :options="options" />
      <Button :disabled="!advice" @click="apply">Take it</Button>
    </div>
    <p v-if="advice" class="soft">{{ advice.why }}</p>
    <details>
      <summary>Seats of rolling bearings</summary>
      <ul>
        <li v-for="s in BEARING_SEATS" :key="s.words">
          <b class="figure">{{ s.words }}</b> {{ s.why }}
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped src="./figures.css"></style>
<style scoped>
.fit {
  margin: 10px 0;
  padding-top: 8px;
  border-top: 1px solid var(--rule);
}

h2 {
  margin: 0 0 4px;
  font-size: 13px;
}

.soft {
  color: var(--ink-soft);
}

svg {
  display: block;
  width: 250px;
  height: 100px;
  margin: 4px 0;
}

.zero {
  stroke: var(--ink-soft);
  stroke-dasharray: 6 3 1 3;
}

rect.bore {
  fill: var(--halo-wash);
  stroke: var(--halo);
}

rect.land {
  fill: var(--material);
  stroke: var(--ink);
}

text {
  fill: var(--ink);
  font-size: 12px;
}

.choose {
  display: flex;
  gap: 8px;
  align-items: center;
}

ul {
  margin: 4px 0;
  padding-left: 16px;
}
</style>
