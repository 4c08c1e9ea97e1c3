import { useStorage } from '@vueuse/core'
import { TOLERANCE_WAYS, type ToleranceWay } from '@lathica/core/formula'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

/** How the solid pane draws the part. */
export const DISPLAYS = [
  'shaded',
  'edged',
  'hidden',
  'edges',
  'glassy',
  'studio',
  'stripes',
] as const
export type Display = (typeof DISPLAYS)[number]

/** What is cut away to look inside. */
export const CUTS = ['half', 'quarter', 'across', 'beside', 'aslant'] as const
export type Cut = (typeof CUTS)[number]

/** What is looked at in the shape of an outline. */
export const CHECKS = ['none', 'curvature', 'wall', 'draw'] as const
export type Check = (typeof CHECKS)[number]

/** From where one looks. */
export const VIEWS = [
  'front',
  'end',
  'otherEnd',
  'top',
  'threeQuarter',
  'otherThreeQuarter',
] as const
export type ViewName = (typeof VIEWS)[number]

/** How the part is looked at; kept in the browser, no part of the document. */
export const useLookStore = defineStore('look', () => {
  const display = useStorage<Display>('lathica.display', 'edged')
  const cutKind = useStorage<Cut>('lathica.cut', 'half')
  const isCut = ref(false)
  /** Where a cut across or beside the axis stands, as a share of the part's length or width. */
  const cutAt = ref(0.5)
  /** How far a cut aslant leans from the axis, in degrees. */
  const cutTilt = ref(45)
  const check = ref<Check>('none')
  /** Where the halves of a mould meet, in mm along the axis; the part's middle where it is not told. */
  const parting = ref<number>()
  /** The least draw angle that is enough, in radians. */
  const leastDraw = ref(Math.PI / 180)
  /** How tolerances are shown beside sizes. */
  const tolerances = useStorage<ToleranceWay>('lathica.tolerances', 'written')
  const perspective = useStorage('lathica.perspective', false)
  const spinning = ref(false)
  /** Whether the points of the profile in hand are seen on the solid. */
  const points = ref(false)
  /** The view that was asked for last; counts up so that one can be asked for twice. */
  const viewAsked = ref<{ readonly view: ViewName | 'square'; readonly count: number }>()
  /** Bodies that are seen through, and the one that is shown alone. */
  const glassy = ref<ReadonlySet<string>>(new Set())
  const alone = ref<string>()

  const cut = computed<Cut | undefined>(() => (isCut.value ? cutKind.value : undefined))

  function ask(view: ViewName | 'square'): void {
    viewAsked.value = { view, count: (viewAsked.value?.count ?? 0) + 1 }
  }

  function nextDisplay(): void {
    const at = DISPLAYS.indexOf(display.value)
    display.value = DISPLAYS[(at + 1) % DISPLAYS.length] ?? 'edged'
  }

  function nextTolerances(): void {
    const at = TOLERANCE_WAYS.indexOf(tolerances.value)
    tolerances.value = TOLERANCE_WAYS[(at + 1) % TOLERANCE_WAYS.length] ?? 'written'
  }

  function nextCheck(): void {
    const at = CHECKS.indexOf(check.value)
    check.value = CHECKS[(at + 1) % CHECKS.length] ?? 'none'
  }

  /** The same cut again takes it off. */
  function chooseCut(kind: Cut): void {
    isCut.value = !(isCut.value && cutKind.value === kind)
    cutKind.value = kind
  }

  function toggleGlassy(body: string): void {
    const next = new Set(glassy.value)
    if (!next.delete(body)) next.add(body)
    glassy.value = next
  }

  /** Another part has other bodies. */
  function reset(): void {
    isCut.value = false
    check.value = 'none'
    parting.value = undefined
    spinning.value = false
    glassy.value = new Set()
    alone.value = undefined
    viewAsked.value = undefined
  }

  return {
    display,
    cutKind,
    isCut,
    cut,
    cutAt,
    cutTilt,
    check,
    parting,
    leastDraw,
    tolerances,
    nextTolerances,
    perspective,
    spinning,
    points,
    viewAsked,
    glassy,
    alone,
    ask,
    nextDisplay,
    nextCheck,
    chooseCut,
    toggleGlassy,
    reset,
  }
})
