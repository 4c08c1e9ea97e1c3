import { evaluateFormula } from '@lathica/core/formula'
import { edgeKey, edgesOf } from '@lathica/core/section'
import { WHOLE_BODY, valuesOf, type MeasurePick } from '@lathica/core/part'
import type { BodyState } from '@lathica/core/route'
import { cavityIn, capacityAt, type Cavity } from '@lathica/core/inspect'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Px, View } from '../board/view'
import { CHARTS, CHART_KINDS, type ChartKind } from '../inspect/chartData'
import { usePartStore } from './part'
import { useRouteStore } from './route'

export type InspectTab = 'sheet' | 'measure' | 'mass' | 'tolerances'

/** What is being measured and looked at on the inspection screen. */
export const useInspectStore = defineStore('inspect', () => {
  const parts = usePartStore()
  const route = useRouteStore()
  const tab = ref<InspectTab>('sheet')
  const picks = shallowRef<readonly MeasurePick[]>([])
  const view = shallowRef<View>()
  /** Where the section's pane stands on the page, in pixels: the chart keeps in line with it. */
  const corner = shallowRef<Px>({ x: 0, y: 0 })
  const chosenChart = ref<ChartKind>('diameters')
  const chosenBody = ref('')
  /** The height a vessel is filled to in the picture, as it was typed. */
  const fill = ref('')
  /** The place along the axis that the chart's cursor stands at, in mm. */
  const cursor = ref<number>()
  /** The row of the sheet whose fields are open. */
  const rowId = ref<string>()

  /** The bodies that are of the part; what stands there to go by is not measured. */
  const standing = computed<readonly BodyState[]>(() =>
    (parts.followed?.bodies ?? []).filter((b) => !b.reference && b.section.regions.length > 0),
  )
  /** The body the charts are of. */
  const body = computed(
    () => standing.value.find((b) => b.bodyId === chosenBody.value) ?? standing.value[0],
  )
  const cavity = computed<Cavity | undefined>(() => body.value && cavityIn(body.value))
  const charts = computed<readonly ChartKind[]>(() =>
    CHART_KINDS.filter(
      (c) =>
        (!CHARTS[c].ofVessels || cavity.value !== undefined) &&
        (!CHARTS[c].ofTurned || body.value?.plan === undefined),
    ),
  )
  const chart = computed<ChartKind>(() =>
    charts.value.includes(chosenChart.value) ? chosenChart.value : 'diameters',
  )
  /** The height filled to in mm, and what that is; undefined while nothing sensible is typed. */
  const filled = computed(() => {
    const { part } = parts
    if (!part || !cavity.value || fill.value.trim() === '') return undefined
    const lookup = valuesOf(part).table.lookup
    const height = evaluateFormula(fill.value, { want: 'length', units: part.units, lookup })
    if (!height.ok) return { problem: height.problem }
    const { brim, floor } = cavity.value
    const within = Math.min(Math.max(0, height.value), brim - floor)
    return { height: within, asked: height.value, volume: capacityAt(cavity.value, within) }
  })

  /** What is lit: the picks, or those of the sheet's open row. */
  const shownPicks = computed<readonly MeasurePick[]>(() => {
    if (tab.value !== 'sheet') return picks.value
    const row = parts.part?.checks.find((c) => c.id === rowId.value)
    return row && 'picks' in row.figure ? row.figure.picks : picks.value
  })

  /** The keys of what is lit: of a body, of all its faces. */
  const shownKeys = computed<readonly string[]>(() =>
    shownPicks.value.flatMap(({ body: owner, key }) => {
      if (key !== WHOLE_BODY) return [key]
      const found = standing.value.find((b) => b.bodyId === owner)
      return found ? edgesOf(found.section).map((e) => edgeKey(e.name)) : []
    }),
  )

  /** Takes a pick: the third one begins anew, unless it comes beside the others. */
  function take(pick: MeasurePick, adding = false): void {
    const same = picks.value.some((p) => p.key === pick.key && p.body === pick.body)
    if (same) picks.value = picks.value.filter((p) => p.key !== pick.key || p.body !== pick.body)
    else picks.value = picks.value.length >= 2 && !adding ? [pick] : [...picks.value, pick]
    if (tab.value !== 'tolerances') tab.value = 'measure'
  }

  /** Lets faces and edges be picked on section and solid. */
  function begin(): void {
    route.reset()
    route.ask = {
      hint: 'Click one or two faces, edges, points on the axis, or bodies; Shift adds more, Esc lets go.',
      accept: 'any',
      wholes: true,
      anything: true,
      bodies: () => standing.value,
      chosen: () => shownKeys.value,
      take: ({ body: owner, key }, adding) => take({ body: owner, key }, adding),
    }
  }

  function reset(): void {
    picks.value = []
    view.value = undefined
    fill.value = ''
    cursor.value = undefined
    rowId.value = undefined
    chosenBody.value = ''
  }

  return {
    tab,
    picks,
    shownPicks,
    shownKeys,
    view,
    corner,
    chart,
    chosenChart,
    charts,
    chosenBody,
    body,
    cavity,
    fill,
    filled,
    cursor,
    rowId,
    standing,
    take,
    begin,
    reset,
  }
})
