import { boundsOf, boxAround, type Box, type Vec } from '@lathica/core/geometry'
import { entityMap, locator } from '@lathica/core/sketch'
import { greatestRadius, loopsOf } from '@lathica/core/section'
import { useElementSize } from '@vueuse/core'
import { computed, watch, type ComputedRef, type Ref } from 'vue'
import { useBoardStore } from '../store/board'
import { useLookStore } from '../store/look'
import { following } from '../store/follow'
import { usePartStore } from '../store/part'
import { besideAxis, edgeOut } from './beyond'
import { legible } from './sizes/crowd'
import { layoutSizes, reachOf, type SizeDrawing } from './sizes/layout'
import { labelExtent } from './sizes/setting'
import { emptyBox, fittedView, toScreen, type Margins, type Px, type View } from './view'

const PENDING = 'pending'
/** Room for the tabs over an end sketch, whose sizes stand right below them, in pixels. */
const TABS = 26
/** How far out an end sketch looks while there is nothing yet, in mm. */
const LEAST_END = 40
/** Sizes of what is smaller than this on the pane say nothing there, in pixels. */
const LEAST_SEEN = 2.5
/** With more sizes than this, those of a drawing that is dragged lag behind it where time is short. */
const MANY_SIZES = 100
const ROOMY: Margins = { axial: 44, outer: 70, mirror: 52 }
/** Outside the part there is always room for one more row of sizes. */
const LEAST: Margins = { axial: 36, outer: 52, mirror: 30 }
/** Beside a standing part so large a share of the pane stays free, for a handle or a spout. */
const BESIDE = 0.2

/** How far out a box goes, in mm. */
const topOf = (box: Box | undefined): number => Math.max(0, box?.max.y ?? 0, -(box?.min.y ?? 0))

/** The board's view of the part: its size on the page, its fit, and where the sizes stand. */
export function useBoardView(element: Ref<HTMLElement | null>): {
  readonly width: Ref<number>
  readonly height: Ref<number>
  readonly drawings: ComputedRef<readonly SizeDrawing[]>
  /** Those of them that can be read at this scale, and how many cannot. */
  readonly legible: ComputedRef<ReturnType<typeof legible>>
} {
  const parts = usePartStore()
  const board = useBoardStore()
  const look = useLookStore()
  const { width, height } = useElementSize(element)
  watch([width, height], () => (board.pane = { width: width.value, height: height.value }))

  /** What lies round the axis as it is seen from the end. */
  const endBox = computed<Box>(() => {
    const radii = board.sections.map((s) => greatestRadius(s))
    const drawn = board.sketch.points.flatMap((p) => [Math.abs(p.x), Math.abs(p.y)])
    const out = Math.max(0, ...radii, ...drawn) || LEAST_END
    return { min: { x: -out, y: -out }, max: { x: out, y: out } }
  })
  const halfBox = computed<Box | undefined>(() => {
    const drawn =
      parts.part?.sketches.filter((s) => s.plane === 'half').flatMap((s) => s.points) ?? []
    const turned = board.sections.flatMap((section) =>
      loopsOf(section).flatMap((loop) =>
        loop.flatMap((e) => {
          const { min, max } = boundsOf(e.piece)
          return [min, max]
        }),
      ),
    )
    return boxAround([...drawn, ...turned, ...pictureCorners()])
  })

  /** What is drawn after is seen whole. */
  function pictureCorners(): Vec[] {
    const picture = parts.part?.picture
    if (!picture?.shown) return []
    const { at, across, down, width: wide, height: high } = picture
    const corner = (column: number, row: number): Vec => ({
      x: at.x + across.x * column + down.x * row,
      y: Math.max(0, at.y + across.y * column + down.y * row),
    })
    return [corner(0, 0), corner(wide, 0), corner(0, high), corner(wide, high)]
  }

  const box = computed(() => (board.looksAtEnd ? endBox.value : halfBox.value))
  /** An end sketch stands upright whichever way the part lies. */
  const lie = computed(() => (board.looksAtEnd ? 'lying' : parts.lie))

  /** The size that is being put, if one is. */
  const pending = computed(() => {
    const { field, toolState, proposed } = board
    const offer = field?.kind === 'new' ? field.offer : (toolState?.overlay?.offer ?? proposed)
    const label = field?.kind === 'new' ? field.label : toolState?.overlay?.label
    if (!offer) return undefined
    const place = label ? { label } : {}
    return { ...offer, id: PENDING, name: '', formula: '', reference: false, ...place }
  })

  /** Many sizes follow a drag of the drawing in the time between its pictures, and nothing else. */
  const hurried = (): boolean => {
    const { sizes, id } = board.sketch
    const stored = parts.history?.part.sketches.find((s) => s.id === id)
    return parts.preview !== undefined && sizes.length > MANY_SIZES && stored?.sizes === sizes
  }
  const sized = following(
    computed(() => ({ sketch: board.sketch, top: topOf(box.value) })),
    hurried,
  )

  const drawingsIn = (view: View): SizeDrawing[] => {
    const { field } = board
    const { sketch, top } = sized.value
    const entities = entityMap(sketch)
    const locate = locator(sketch)
    const sizes = sketch.sizes.filter(
      (size) =>
        reachOf(size, entities, locate) * view.scale >= LEAST_SEEN ||
        board.picks.includes(size.id) ||
        (field?.kind === 'size' && field.id === size.id),
    )
    const all = pending.value ? [...sizes, pending.value] : sizes
    return layoutSizes(
      sketch,
      all,
      view,
      top,
      parts.units,
      edgeOut(view, height.value),
      look.tolerances,
    )
  }
  const drawings = computed(() => (board.view ? drawingsIn(board.view) : []))

  const readable = computed(() => {
    const { picks, accused, hover, field, sketchState } = board
    const wanted = new Set([PENDING, ...picks, ...accused])
    if (hover !== undefined) wanted.add(hover)
    if (field?.kind === 'size') wanted.add(field.id)
    for (const d of sketchState?.solution.disagreements ?? []) {
      for (const m of d.members) wanted.add(m)
    }
    const { shown, hidden } = legible(drawings.value, wanted, width.value, height.value)
    const laidOut = drawings.value.filter((d) => d.id !== PENDING).length
    return { shown, hidden: hidden + board.sketch.sizes.length - laidOut }
  })

  const fit = (): void => {
    if (!parts.history || width.value < 10 || height.value < 10) return
    const fitted = (margins: Margins): View =>
      fittedView(
        lie.value,
        box.value ?? emptyBox(parts.units.length),
        width.value,
        height.value,
        margins,
      )
    let found = fitted(ROOMY)
    const room = lie.value === 'lying' ? height.value : width.value
    const length = lie.value === 'lying' ? width.value : height.value
    const marginsOf = (view: View): Margins =>
      box.value ? marginsFor(drawingsIn(view), view, box.value) : ROOMY
    // Sizes are laid out anew at each scale, so the room they need is found in two rounds.
    for (let round = 0; round < 2 && box.value; round++) {
      const { outer, ...rest } = capped(marginsOf(found), length, room)
      const beside = lie.value === 'standing' ? BESIDE * room : 0
      found = fitted({
        ...rest,
        outer: Math.max(outer, beside) + (board.looksAtEnd ? TABS : 0),
      })
    }
    const margins = capped(marginsOf(found), length, room)
    const ring = board.looksAtEnd
      ? undefined
      : box.value && besideAxis(box.value, found, width.value, height.value, margins)
    board.view = ring ?? found
  }

  watch(
    () => [parts.id, parts.history !== undefined, width.value > 10 && height.value > 10],
    () => {
      if (!board.view) fit()
      if (board.view && !board.toolState) board.useTool('pick')
    },
    { immediate: true },
  )
  watch(() => board.fitAsked, fit, { flush: 'post' })
  watch([lie, () => board.looksAtEnd], fit)
  // A new size beyond the edge of the pane is brought in, unless one looks at a detail just then.
  watch(
    () => board.sketch.sizes.length,
    (now, before) => {
      const { view } = board
      if (now <= before || !view || !box.value) return
      const inPane = ({ x, y }: Px): boolean =>
        x >= 0 && y >= 0 && x <= width.value && y <= height.value
      const corners = [box.value.min, box.value.max].map((corner) => toScreen(view, corner))
      if (corners.every(inPane) && !drawings.value.every((d) => inPane(d.label))) fit()
    },
    { flush: 'post' },
  )
  // A pane that grows or shrinks keeps its middle where it is.
  watch([width, height], ([w, h], [w0, h0]) => {
    const { view } = board
    if (!view || w < 10 || h < 10 || w0 < 10 || h0 < 10) return
    const origin = { x: view.origin.x + (w - w0) / 2, y: view.origin.y + (h - h0) / 2 }
    board.view = { ...view, origin }
  })

  return { width, height, drawings, legible: readable }
}

/** However many sizes there are, the part keeps the better part of the pane. */
function capped({ axial, outer, mirror }: Margins, along: number, across: number): Margins {
  const most = 0.3 * across
  return {
    axial: Math.min(axial, 0.14 * along),
    outer: Math.min(outer, most),
    mirror: Math.min(mirror, most),
  }
}

/** The room the sizes need round a part, as they are laid out in a view. */
function marginsFor(drawings: readonly SizeDrawing[], view: View, box: Box): Margins {
  const lying = view.lie === 'lying'
  const { origin, scale } = view
  const top = Math.max(box.max.y, -box.min.y) * scale
  const needed = { ...LEAST }
  for (const drawing of drawings) {
    const { label } = drawing
    const extent = labelExtent(drawing)
    const [along, across] = lying ? [extent.x, extent.y] : [extent.y, extent.x]
    const a = lying ? label.x - origin.x : origin.y - label.y
    const r = lying ? origin.y - label.y : label.x - origin.x
    const before = box.min.x * scale - (a - along / 2)
    const behind = a + along / 2 - box.max.x * scale
    needed.axial = Math.max(needed.axial, before + 16, behind + 16)
    needed.outer = Math.max(needed.outer, r + across / 2 - top + 12)
    needed.mirror = Math.max(needed.mirror, -r + across / 2 - top + 12)
  }
  return needed
}
