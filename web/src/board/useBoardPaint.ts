import { unitScale } from '@lathica/core/units'
import { isEndSketch } from '@lathica/core/sketch'
import { referencesOf } from '@lathica/core/constraints'
import { usesSketch } from '@lathica/core/part'
import { computed, inject, onBeforeUnmount, ref, watch, type ComputedRef, type Ref } from 'vue'
import { generalWords } from '@lathica/core/standards'
import { mayBeOfAll } from '@lathica/core/notes'
import { wordCells } from '../notes/kind'
import { cellsOf } from './paint/notePlate'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useNotesStore } from '../store/notes'
import { useRouteStore } from '../store/route'
import { THEME } from '../style/themeKey'
import { imageOf } from './boardPicture'
import { readColours } from './colours'
import { refsCalled } from './refs'
import { useEndLines } from '../endview/useEndLines'
import { useShapeCheck } from '../store/shapeCheck'
import { useAskedAreas } from './useAskedAreas'
import { endPicture } from './endPicture'
import { layPlates, type LaidNote } from './paint/lay'
import { changedPatch, paintBoard, paintPatch, type Scene } from './paint'
import type { SizeDrawing } from './sizes/layout'

/** Paints the board once a frame whenever something it shows has changed. */
export function useBoardPaint(
  canvas: Ref<HTMLCanvasElement | null>,
  width: Ref<number>,
  height: Ref<number>,
  drawings: ComputedRef<readonly SizeDrawing[]>,
): { readonly laid: ComputedRef<readonly LaidNote[]> } {
  const parts = usePartStore()
  const board = useBoardStore()
  const route = useRouteStore()
  const notes = useNotesStore()
  const shape = useShapeCheck()
  const theme = inject(THEME, ref('light'))
  const colours = computed(() => {
    void theme.value
    return readColours()
  })

  const troubled = computed(() => {
    const { solution, profile, sizeProblems } = board.sketchState ?? {}
    return new Set([
      ...(solution?.disagreements ?? []).flatMap((d) => involvedIn(d.members)),
      ...(profile?.faults ?? []).flatMap((f) => (f.kind === 'open' ? [] : f.entities)),
      ...(sizeProblems?.keys() ?? []),
      ...involvedIn(board.accused),
    ])
  })

  /** The disagreeing constraints and sizes, and the lines they stand on. */
  function involvedIn(members: readonly string[]): string[] {
    const { constraints, sizes } = board.sketch
    return members.flatMap((id) => {
      const item = [...constraints, ...sizes].find((x) => x.id === id)
      return item ? [id, ...referencesOf(item).filter(isEntity)] : [id]
    })
  }

  function isEntity(id: string): boolean {
    return board.sketch.entities.some((e) => e.id === id)
  }

  const drawnSteps = computed(() => {
    const own = parts.route.filter((s) => s.kind === 'revolve' && s.sketch === board.sketch.id)
    return new Set(own.map((s) => s.id))
  })

  const receding = computed(() => {
    const own = parts.route.findIndex((s) => usesSketch(s) && s.sketch === board.sketch.id)
    const looking = board.toolId === 'pick' || board.toolId === 'asking'
    const later = own >= 0 && route.shownCount > own + 1
    return later && looking && board.picks.length === 0 && !board.field
  })

  /** What the opened card points at, as the step finds it. */
  const marked = computed(() => {
    const keys = route.ask?.accept === 'region' ? [] : (route.ask?.chosen() ?? [])
    const noted = notes.inHand.map((m) => m.on)
    const all = new Set([...(route.openStep ? route.marked : []), ...keys, ...noted])
    return all.size === 0 ? [] : refsCalled(route.before(route.openStep?.id), [...all])
  })
  const tool = computed(() => {
    const { openStep } = route
    // A profile's own lines show what its step does.
    if (!openStep || (usesSketch(openStep) && openStep.sketch === board.sketch.id)) return undefined
    return parts.state?.steps.find((s) => s.stepId === openStep.id)?.tool
  })

  const picture = computed(() => {
    const placed = parts.part?.picture
    const image = placed?.shown ? imageOf(placed) : undefined
    return placed && image ? { image, placed } : undefined
  })
  const areas = useAskedAreas()
  const { circles, lines } = useEndLines(
    computed(() => (board.sketch.plane === 'lesserEnd' ? 'left' : 'right')),
  )
  const end = computed(() => {
    const { sketch } = board
    if (!isEndSketch(sketch)) return undefined
    return endPicture(lines.value, circles.value, parts.lie, sketch.plane)
  })

  const behind = computed(() => {
    const shown = new Set(parts.profiles.filter((p) => p.shown).map((p) => p.id))
    const { id, plane } = board.sketch
    return (parts.part?.sketches ?? []).filter(
      (s) => shown.has(s.id) && s.id !== id && s.plane === plane,
    )
  })

  const general = computed(() => {
    const ofAll = notes.shown.filter((s) => s.note.on === '' && mayBeOfAll(s.note.kind))
    const sizes = parts.part && generalWords(parts.part)
    return [
      ...ofAll.map(({ note, words }) => cellsOf(note, words)),
      ...(sizes === undefined ? [] : [wordCells(sizes)]),
    ]
  })

  const scene = computed<Scene | undefined>(() =>
    board.view && width.value > 0
      ? {
          view: board.view,
          width: width.value,
          height: height.value,
          colours: colours.value,
          sections: board.looksAtEnd ? [] : board.sections,
          end: board.looksAtEnd ? end.value : undefined,
          drawnSteps: drawnSteps.value,
          receding: receding.value,
          sketch: board.sketch,
          behind: behind.value,
          sketchState: board.sketchState,
          unit: unitScale('length', parts.units),
          sizes: drawings.value,
          picks: new Set(board.picks),
          hover: board.hover,
          troubled: troubled.value,
          marked: board.looksAtEnd ? [] : marked.value,
          // What the pointer is on itself is haloed by the profile.
          hoverRef: board.hover === undefined && !board.looksAtEnd ? route.hoverRef : undefined,
          areas: areas.value,
          marks: board.looksAtEnd ? [] : route.marks,
          notes: board.looksAtEnd ? [] : notes.marks,
          threads: board.looksAtEnd ? [] : notes.lines,
          zones: board.looksAtEnd ? [] : notes.zones,
          knurls: board.looksAtEnd ? [] : notes.knurls,
          general: general.value,
          tool: board.looksAtEnd ? undefined : tool.value,
          overlay: board.typedOverlay ?? board.cardOverlay ?? board.toolState?.overlay,
          picture: board.looksAtEnd ? undefined : picture.value,
          check: board.looksAtEnd ? undefined : shape.check,
          grid: board.suggesting.kinds.has('grid') ? board.suggesting.grid : undefined,
        }
      : undefined,
  )

  let frame = 0
  /** What the canvas shows, if it is still the same canvas. */
  let shown: { readonly scene: Scene; readonly on: HTMLCanvasElement } | undefined
  const paint = (): void => {
    frame = 0
    const element = canvas.value
    const ctx = element?.getContext('2d', { alpha: false })
    const now = scene.value
    if (!element || !ctx || !now) return
    const ratio = window.devicePixelRatio || 1
    const [w, h] = [Math.round(width.value * ratio), Math.round(height.value * ratio)]
    if (element.width !== w || element.height !== h) {
      element.width = w
      element.height = h
      shown = undefined
    }
    const patch = shown?.on === element ? changedPatch(shown.scene, now) : 'all'
    shown = { scene: now, on: element }
    if (patch === undefined) return
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0)
    if (patch === 'all') paintBoard(ctx, now)
    else paintPatch(ctx, now, patch)
  }
  watch(
    [scene, canvas],
    () => {
      if (frame === 0) frame = requestAnimationFrame(paint)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => cancelAnimationFrame(frame))
  return { laid: computed(() => (scene.value ? layPlates(scene.value).notes : [])) }
}
