import { bodyPlans, plansCalled } from '@lathica/core/formats'
import {
  asksToSee,
  drawingOf,
  drawSheet,
  isKept,
  keyOf,
  NOTHING_SEEN,
  type Drawing,
  type DrawnPlace,
  type Seen,
  type SeenAsk,
  type SeenLines,
} from '@lathica/core/drawing'
import {
  addSheet,
  changeSheet,
  drawSize,
  enlarge,
  moveSheetLabel,
  putOnLabels,
  removeSheet,
  takeOffLabel,
} from '@lathica/core/edit'
import type { PartState } from '@lathica/core/route'
import { PLAIN_DRAWING, PLAIN_SHEET, type DrawnSize, type SheetSetup } from '@lathica/core/part'
import { defineStore } from 'pinia'
import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { isStopped } from '../kernel/answers'
import { seeSolids } from '../kernel/client'
import { tellProblem } from '../notices'
import { usePartStore } from './part'

export type SheetPage = 'sheet' | 'plan' | 'revisions'

/** What edges are chosen for on the sheet: a size of one’s own, a larger view, where lengths run from. */
export type SheetTool = 'size' | 'larger' | 'origin'

/** The sheets of the part in hand: the one that is shown as the part stands, and what is picked on it. */
export const useSheetStore = defineStore('sheet', () => {
  const parts = usePartStore()
  /** What the kernel has seen of the bodies as they are, and how much it is looking at. */
  const seen = shallowRef<SeenLines>(NOTHING_SEEN)
  const looking = ref(0)
  /** The page is open: only then is anything looked at. */
  const isOpen = ref(false)
  const all = computed(() => (parts.part ? drawingOf(parts.part) : PLAIN_DRAWING))
  /** The id of the sheet that is shown. */
  const shown = ref('')
  const index = computed(() =>
    Math.max(
      0,
      all.value.sheets.findIndex((s) => s.id === shown.value),
    ),
  )
  const setup = computed((): SheetSetup => all.value.sheets[index.value] ?? PLAIN_SHEET)
  const drawing = computed(
    (): Drawing | undefined => parts.state && drawSheet(parts.state, seen.value, index.value),
  )
  /** What stands beside the sheet: how it is drawn, the inspection plan, or what was released. */
  const page = ref<SheetPage>('sheet')
  /** The id of a size or a note. */
  const picked = ref<string>()
  /** How often all of the sheet was asked to be shown. */
  const asked = ref(0)

  /** What was seen of the plans as they are: moving a label changes none. */
  let known: { readonly plans: string; readonly lines: Map<string, Seen> } | undefined

  /** What the kernel sees of the part as it is; it is asked for what is not known. */
  async function look(asks: readonly SeenAsk[], stop?: AbortSignal): Promise<SeenLines> {
    const { state } = parts
    if (!state || asks.length === 0) return NOTHING_SEEN
    const plans = JSON.stringify(bodyPlans(state).map((b) => b.plan))
    if (known?.plans !== plans) known = { plans, lines: new Map() }
    const { lines } = known
    looking.value += 1
    try {
      for (const ask of asks) {
        if (lines.has(keyOf(ask))) continue
        const answer = await seeSolids(plansCalled(state, ask.bodies), ask, stop)
        if (isStopped(answer)) break
        if (!answer.ok) {
          tellProblem(answer.problem)
          break
        }
        lines.set(keyOf(ask), answer.value)
      }
    } finally {
      looking.value -= 1
    }
    // Not the same map twice: what is drawn of it is kept by it.
    return new Map(lines)
  }

  /** The sheet that is shown, with all that the kernel sees. */
  async function whole(): Promise<Drawing | undefined> {
    const { state } = parts
    if (!state) return undefined
    return drawSheet(state, await look(asksToSee(state, index.value)), index.value)
  }

  /** What the kernel sees for all sheets. */
  const lookAll = async (): Promise<SeenLines> =>
    parts.state ? look(asksToSee(parts.state)) : NOTHING_SEEN

  /** Ends what is looked at of a shape that is passed. */
  let looks: AbortController | undefined
  watchDebounced(
    [() => parts.state, isOpen, index],
    async () => {
      const { state } = parts
      if (!state || !isOpen.value) return
      looks = new AbortController()
      const lines = await look(asksToSee(state, index.value), looks.signal)
      if (state === parts.state) seen.value = lines
    },
    { debounce: 150, immediate: true },
  )
  // What was seen of another shape is not drawn.
  watch(
    () => parts.state,
    (state, before) => {
      const isSame = (a: PartState | undefined): boolean =>
        a?.bodies.every((b, i) => b.plan === before?.bodies[i]?.plan) === true
      if (isSame(state)) return
      looks?.abort()
      seen.value = NOTHING_SEEN
    },
  )

  watch(
    () => parts.id,
    () => {
      picked.value = undefined
      shown.value = ''
      begun.value = undefined
      tool.value = undefined
    },
  )

  /** Labels in the order they are read: from above, and from the left. */
  const order = computed((): readonly string[] =>
    [...(drawing.value?.labels ?? [])]
      .sort(([, a], [, b]) => Math.round((b.at.y - a.at.y) / 10) || a.at.x - b.at.x)
      .map(([id]) => id),
  )

  /** Goes to the next label, or the one before. */
  function step(by: 1 | -1): void {
    const ids = order.value
    if (ids.length === 0) return
    const at = picked.value === undefined ? -1 : ids.indexOf(picked.value)
    const next = at < 0 ? (by > 0 ? 0 : ids.length - 1) : (at + by + ids.length) % ids.length
    picked.value = ids[next]
  }

  /** Shows another sheet. */
  function show(id: string): void {
    if (id === setup.value.id) return
    shown.value = id
    picked.value = undefined
    begun.value = undefined
    fit()
  }

  /** Shows the next sheet, or the one before. */
  function turn(by: 1 | -1): void {
    const { sheets } = all.value
    const next = sheets[(index.value + by + sheets.length) % sheets.length]
    if (next) show(next.id)
  }

  /** Puts one more sheet behind the others, and shows it. */
  function add(like: Partial<SheetSetup> = {}): void {
    const { paper, upright, projection, lines } = setup.value
    if (parts.run(addSheet({ paper, upright, projection, lines, ...like }))) {
      show(all.value.sheets.at(-1)?.id ?? '')
    }
  }

  /** Takes the sheet that is shown off. */
  function remove(): void {
    const { id } = setup.value
    const at = index.value
    if (parts.run(removeSheet(id))) show(all.value.sheets[Math.max(0, at - 1)]?.id ?? '')
  }

  const isMoved = (id: string): boolean => setup.value.moved.some((m) => m.id === id)

  /** Moves a label by so much of the paper, in mm: x to the right, y upwards. */
  function move(id: string, dx: number, dy: number): void {
    const label = drawing.value?.labels.get(id)
    if (!label || label.isFixed) return
    const { by, along, across } = label
    parts.run(
      moveSheetLabel(setup.value.id, id, {
        x: rounded(by.x + dx * along.x + dy * along.y),
        y: rounded(by.y + dx * across.x + dy * across.y),
      }),
    )
  }

  /** Puts a label back to where it stands by itself. */
  function putBack(id: string): void {
    if (isMoved(id)) parts.run(moveSheetLabel(setup.value.id, id, undefined))
  }

  /** What was chosen by hand to be drawn larger, by the id of its letter. */
  const enlargedOf = (id: string) => setup.value.enlarged.find((e) => e.id === id)

  /** What was drawn between places, by the id of its label. */
  const drawnOf = (id: string) => setup.value.drawn.find((d) => d.id === id)

  /** Takes the picked label off the sheet. */
  function takeOff(): void {
    const id = picked.value
    if (id === undefined || !(isKept(id) || enlargedOf(id))) return
    parts.run(takeOffLabel(setup.value.id, id))
    picked.value = undefined
  }

  /** What an edge is chosen for; and where a size that is drawn begins. */
  const tool = ref<SheetTool>()
  const begun = shallowRef<DrawnPlace>()

  /** Begins choosing edges for something, or ends it. */
  function choose(wanted: SheetTool): void {
    tool.value = tool.value === wanted ? undefined : wanted
    begun.value = undefined
    picked.value = undefined
  }

  /** Lets go of the edge in hand, then of choosing, then of what is picked. */
  function letGo(): void {
    if (begun.value) begun.value = undefined
    else if (tool.value) tool.value = undefined
    else picked.value = undefined
  }

  /** Takes an edge for what is being chosen for. @param isSquare whether a size is wanted square to the axis */
  function takePlace(place: DrawnPlace, isSquare: boolean): void {
    if (tool.value === 'size') takeSize(place, isSquare)
    else if (tool.value === 'larger') takeLarger(place)
    else takeOrigin(place)
  }

  /** Draws larger what lies round an edge: a circle that is read well on this paper, to begin with. */
  function takeLarger({ body, key }: DrawnPlace): void {
    const radius = rounded(ROUND_IT / (drawing.value?.scale.by ?? 1))
    if (!parts.run(enlarge(setup.value.id, { body, corner: key }, radius))) return
    tool.value = undefined
    picked.value = all.value.sheets[index.value]?.enlarged.at(-1)?.id
  }

  /** Lets lengths run from an edge. */
  function takeOrigin({ body, key }: DrawnPlace): void {
    const originAt = { body, corner: key }
    if (!parts.run(changeSheet(setup.value.id, { lengths: 'running', origin: 'edge', originAt })))
      return
    tool.value = undefined
  }

  /**
   * Takes a place for the size that is drawn: the second one ends it. Between two edges it is the distance along the
   * axis; square to it where they stand over each other or that is asked; of one edge twice its diameter. Of two faces it is
   * their angle, of a rounded one its radius. On the view from an end a circle has its diameter, and two points what they
   * are apart; level or upright, whichever is more, where that is asked.
   */
  function takeSize(place: DrawnPlace, isSquare: boolean): void {
    const { end, body } = place
    // A rounded face has a radius of its own, and a circle its diameter.
    if (place.what === 'arc' || place.what === 'ring') {
      const kind = place.what === 'arc' ? 'radius' : 'across'
      drawOne({ kind, end, body, from: place.key, to: place.key })
      return
    }
    const from = begun.value
    // A face and an edge have nothing between them that is told here: begun anew.
    if (!from || from.end !== end || from.what !== place.what) {
      begun.value = place
      return
    }
    const kind = kindBetween(from, place, isSquare)
    const other = from.body === body ? {} : { other: body }
    if (kind) drawOne({ kind, end, body: from.body, from: from.key, to: place.key, ...other })
  }

  /** Draws a size, and picks it. */
  function drawOne(size: Omit<DrawnSize, 'id'>): void {
    if (!parts.run(drawSize(setup.value.id, size))) return
    begun.value = undefined
    picked.value = all.value.sheets[index.value]?.drawn.at(-1)?.id
  }

  /** Puts all labels on again that were taken off. */
  const putOn = (): void => void parts.run(putOnLabels(setup.value.id))

  /** Asks the view to show the whole sheet. */
  const fit = (): void => void asked.value++

  return {
    ...{
      drawing,
      seen,
      page,
      whole,
      lookAll,
      looking,
      isOpen,
      all,
      setup,
      index,
      picked,
      asked,
      order,
    },
    ...{ tool, begun, choose, takePlace, letGo, enlargedOf, drawnOf },
    ...{ step, show, turn, add, remove, move, putBack, isMoved, takeOff, putOn, fit },
  }
})

/** What is told between two places of one kind; nothing of a face and itself, or a point. */
function kindBetween(
  from: DrawnPlace,
  to: DrawnPlace,
  isSquare: boolean,
): DrawnSize['kind'] | undefined {
  const isSame = from.key === to.key && from.body === to.body
  const [dx, dy] = [Math.abs(from.at.x - to.at.x), Math.abs(from.at.y - to.at.y)]
  if (from.what === 'line') return isSame ? undefined : 'angle'
  if (from.what === 'point') {
    if (isSame) return undefined
    return isSquare ? (dx >= dy ? 'along' : 'radial') : 'apart'
  }
  return isSame ? 'across' : isSquare || dx < 1e-6 ? 'radial' : 'along'
}

/** So much round an edge is drawn larger to begin with, in mm of the paper. */
const ROUND_IT = 6

/** To a hundredth of a mm: more is not seen. */
const rounded = (mm: number): number => Math.round(mm * 100) / 100
