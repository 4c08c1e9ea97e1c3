<script setup lang="ts">
import type { Measure, UnitSettings } from '@lathica/core/units'
import { usualUnit } from '@lathica/core/units/shown'
import type { BodyState } from '@lathica/core/route'
import { setMaterial } from '@lathica/core/edit'
import {
  STOCK_ALLOWANCE,
  massProperties,
  stockFor,
  tellFigures,
  tellValue,
  unitWords,
} from '@lathica/core/inspect'
import { writeCsv } from '@lathica/core/formats'
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { saveFile } from '../dispatch/saveFile'
import MaterialSelect from '../materials/MaterialSelect.vue'
import { tell, tellProblem } from '../notices'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

/** Mass properties of the whole or of one body, in the part's units or others. */
const parts = usePartStore()
const inspect = useInspectStore()
const chosen = ref('')
const lengthUnit = ref<UnitSettings['length'] | ''>('')
const massUnit = ref<UnitSettings['mass'] | ''>('')

const owners = computed(() => [
  { value: '', label: 'all bodies together' },
  ...parts.bodies.map((b) => ({ value: b.id, label: b.name })),
])
const units = computed<UnitSettings>(() => ({
  ...parts.units,
  length: lengthUnit.value || parts.units.length,
  mass: massUnit.value || parts.units.mass,
}))
const LENGTHS = computed(() => [
  { value: '' as const, label: `${parts.units.length}, the part’s` },
  ...(['mm', 'cm', 'm', 'in'] as const).map((value) => ({ value, label: value })),
])
const MASSES = computed(() => [
  { value: '' as const, label: `${parts.units.mass}, the part’s` },
  ...(['g', 'kg', 'lb'] as const).map((value) => ({ value, label: value })),
])
const body = computed(() => parts.bodies.find((b) => b.id === chosen.value))

interface Line {
  readonly what: string
  readonly value: string
  readonly unit: string
}

function linesFor(bodies: readonly BodyState[]): Line[] {
  const { part } = parts
  const found = part && massProperties(part, bodies)
  if (!found) return []
  const line = (what: string, value: number, measure: Measure): Line => {
    const unit = usualUnit(measure, units.value)
    return { what, value: tellFigures(value, unit), unit: unitWords(unit) }
  }
  const stock = stockFor(found)
  const sizes = usualUnit('length', units.value)
  const size = (diameter: number, length: number): string =>
    `⌀${tellFigures(diameter, sizes)} × ${tellFigures(length, sizes)}`
  return [
    line('mass', found.mass, 'mass'),
    line('volume', found.volume, 'volume'),
    line('surface area', found.area, 'area'),
    line('centre of mass, along the axis', found.centre, 'length'),
    ...(found.aside > 1e-9 ? [line('centre of mass, off the axis', found.aside, 'length')] : []),
    line('moment about the axis', found.inertiaAxis, 'inertia'),
    line('moment across it, at the centre', found.inertiaAcross, 'inertia'),
    line('radius of gyration, about the axis', found.gyrationAxis, 'length'),
    line('radius of gyration, across it', found.gyrationAcross, 'length'),
    {
      what: 'bounding cylinder',
      value: size(found.diameter, found.to - found.from),
      unit: sizes.name,
    },
    ...(bodies.length === 1
      ? [
          {
            what: stock.kind === 'bar' ? 'bar it is turned from' : 'blank it is turned from',
            value: size(stock.diameter, stock.length),
            unit: sizes.name,
          },
          { what: 'cut away', value: (100 * stock.cutAway).toFixed(1), unit: '%' },
        ]
      : []),
  ]
}

const shown = computed(() =>
  chosen.value === ''
    ? inspect.standing
    : inspect.standing.filter((b) => b.bodyId === chosen.value),
)
const lines = computed(() => linesFor(shown.value))
const what = computed(() => body.value?.name ?? 'all bodies')

async function copyText(): Promise<void> {
  const rows = lines.value.map((l) => `${l.what}: ${l.value} ${l.unit}`)
  try {
    await navigator.clipboard.writeText([`${parts.name}, ${what.value}`, ...rows].join('\n'))
    tell('Copied.')
  } catch {
    tellProblem({ message: 'The clipboard is closed to this page.', mend: 'Save as CSV instead.' })
  }
}
function saveTable(): void {
  const head = ['body', 'figure', 'value', 'unit']
  const groups: readonly (readonly [string, readonly BodyState[]])[] = [
    ...inspect.standing.map(
      (b) => [parts.bodies.find((x) => x.id === b.bodyId)?.name ?? '', [b]] as const,
    ),
    ...(inspect.standing.length > 1 ? [['all bodies', inspect.standing] as const] : []),
  ]
  const rows = groups.flatMap(([name, bodies]) =>
    linesFor(bodies).map((l) => [name, l.what, l.value.replace('−', '-'), l.unit]),
  )
  saveFile(writeCsv([head, ...rows]), `${parts.name} mass properties.csv`, 'text/csv')
}
const only = computed(() => (parts.bodies.length === 1 ? parts.bodies[0] : body.value))
const density = computed(() => {
  const material = parts.materials.find((m) => m.id === only.value?.material)
  return material ? tellValue(material.density, usualUnit('density', units.value)) : ''
})
</script>

<template>
  <section class="mass" aria-label="Mass properties">
    <div class="choices">
      <PlainSelect
        v-if="parts.bodies.length > 1"
        id="mass-of"
        v-model="chosen"
        class="of"
        aria-label="Mass properties of"
        :options="owners"
      />
      <PlainSelect
        id="mass-length"
        v-model="lengthUnit"
        aria-label="Unit of length"
        :options="LENGTHS"
      />
      <PlainSelect id="mass-mass" v-model="massUnit" aria-label="Unit of mass" :options="MASSES" />
    </div>
    <div v-if="only" class="material">
      <label for="mass-material">Material</label>
      <MaterialSelect
        id="mass-material"
        :model-value="only.material"
        @update:model-value="only && parts.run(setMaterial(only.id, $event))"
      />
      <span class="figure soft">{{ density }}</span>
    </div>
    <p v-if="lines.length === 0" class="soft">There is no material yet.</p>
    <table v-else aria-label="Mass properties">
      <tbody>
        <tr v-for="l in lines" :key="l.what">
          <th scope="row">{{ l.what }}</th>
          <td class="figure">{{ l.value }}</td>
          <td class="unit figure">{{ l.unit }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="lines.length > 0" class="soft note">
      Exact from the section. Stock leaves {{ STOCK_ALLOWANCE.diameter }} mm on the diameter and
      {{ STOCK_ALLOWANCE.end }} mm at each end; bars after EN 10060.
    </p>
    <div v-if="lines.length > 0" class="buttons">
      <Button size="small" @click="copyText">Copy as text</Button>
      <Button size="small" @click="saveTable">Save as CSV</Button>
    </div>
  </section>
</template>

<style scoped src="./figures.css"></style>

<style scoped>
.mass {
  min-height: 0;
  padding: 10px 14px;
  overflow: auto;
}

.choices,
.material {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 8px;
}

.of {
  flex: 1 0 150px;
}

.material > :nth-child(2) {
  flex: 1;
}

td {
  white-space: nowrap;
}

.unit {
  width: 62px;
  color: var(--ink-soft);
  text-align: left;
  padding-left: 8px;
}

.note {
  margin-top: 8px;
  font-size: 12px;
}

.buttons {
  display: flex;
  gap: 8px;
  margin-top: 10px;
}
</style>
