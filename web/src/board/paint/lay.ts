import { once } from '@lathica/core/once'
import { pointsAlong, type Vec } from '@lathica/core/geometry'
import { loopsOf } from '@lathica/core/section'
import { toScreen, type Px } from '../view'
import { overlap, plateFor, type Plate } from './plate'
import { Covered } from './covered'
import { notePlateFor } from './notePlate'
import type { NoteMark, Scene } from './scene'

/** From a face to the plate with its size, in pixels. */
const AWAY = 26
/** Plates that would lie on one another are put further out, by steps of this. */
const STEP = 22
/** Where none is free outwards, they go so far to the side. */
const BESIDE = 40
/** So many steps outwards a plate is tried. */
const FARTHEST = 12
/** How high the label of a size is, in pixels. */
const LABEL_HIGH = 20

/** A size of the step that is looked at, where its plate lies. */
interface LaidSize {
  readonly foot: Px
  readonly plate: Plate
  readonly words: string
}

/** What is said of a face, where its plate lies. */
export interface LaidNote {
  readonly foot: Px
  readonly plate: Plate
  readonly mark: NoteMark
}

/** Where all plates of a picture lie. */
export interface LaidPlates {
  readonly sizes: readonly LaidSize[]
  readonly notes: readonly LaidNote[]
  /** What holds for all other faces, edges and sizes, in the lower right corner. */
  readonly general: readonly { readonly plate: Plate; readonly cells: Scene['general'][number] }[]
}

/** Plates by the rows of pixels they reach into, so that few have to be asked whether another lies on them. */
class Rows {
  private readonly rows = new Map<number, Plate[]>()

  constructor(plates: readonly Plate[]) {
    for (const plate of plates) this.put(plate)
  }

  put(plate: Plate): void {
    for (let r = rowOf(plate.y); r <= rowOf(plate.y + plate.height); r++) {
      const row = this.rows.get(r)
      if (row) row.push(plate)
      else this.rows.set(r, [plate])
    }
  }

  meets(plate: Plate): boolean {
    for (let r = rowOf(plate.y); r <= rowOf(plate.y + plate.height); r++) {
      if (this.rows.get(r)?.some((p) => overlap(p, plate)) === true) return true
    }
    return false
  }
}
const rowOf = (y: number): number => Math.floor(y / STEP)

/** The profile's name, the switch for suggestions and the scale, in the corners of the pane. */
const cornersTaken = (width: number, height: number): readonly Plate[] => [
  { x: 8, y: 10, width: 90, height: 22 },
  { x: width - 66, y: 8, width: 60, height: 22 },
  { x: 8, y: height - 26, width: 136, height: 22 },
]

/** Words are measured on a canvas of its own, so that plates are known before they are painted. */
let measuring: CanvasRenderingContext2D | null | undefined

/** Plates keep clear of one another, of the labels of sizes and, where they can, of the part and of dimension lines. */
export const layPlates = once((scene: Scene): LaidPlates => {
  measuring ??= document.createElement('canvas').getContext('2d')
  const ctx = measuring
  if (!ctx) return { sizes: [], notes: [], general: [] }
  const { view, width, height } = scene
  // The labels of sizes and the words in the corners lie over the picture: plates keep clear of them.
  const placed = new Rows([
    ...scene.sizes.map(({ label, width: wide }) => ({
      ...{ x: label.x - wide / 2, y: label.y - LABEL_HIGH / 2 },
      ...{ width: wide, height: LABEL_HIGH },
    })),
    ...cornersTaken(width, height),
  ])
  const inSight = ({ x, y }: Px): boolean => x >= 0 && y >= 0 && x <= width && y <= height
  // What was put by hand stands where it was put; the others keep clear of it.
  const byHand = new Map<NoteMark, Plate>()
  for (const mark of scene.notes) {
    if (!mark.label) continue
    const bare = notePlateFor(ctx, mark.cells)
    const at = toScreen(view, { x: mark.at.x + mark.label.x, y: mark.at.y + mark.label.y })
    const plate = { ...bare, x: at.x - bare.width / 2, y: at.y - bare.height / 2 }
    byHand.set(mark, plate)
    placed.put(plate)
  }
  const lines = scene.sizes.flatMap((s) => s.lines)
  const hasPlates = scene.marks.length + scene.notes.length > 0
  const covered = new Covered(width, height, hasPlates ? [...outlinesOf(scene), ...lines] : [])
  const clear = (bare: Plate, foot: Px, out: Vec): Plate => {
    const plate = clearPlate(bare, foot, directionOf(out, view.lie), placed, covered, scene)
    placed.put(plate)
    return plate
  }
  const sizes = scene.marks.flatMap(({ at, words, out }): LaidSize[] => {
    const foot = toScreen(view, at)
    if (!inSight(foot)) return []
    return [{ foot, plate: clear(plateFor(ctx, words, { x: 0, y: 0 }), foot, out), words }]
  })
  const notes = scene.notes.flatMap((mark): LaidNote[] => {
    const foot = toScreen(view, mark.at)
    if (!inSight(foot)) return []
    const plate = byHand.get(mark) ?? clear(notePlateFor(ctx, mark.cells), foot, mark.out)
    return [{ foot, plate, mark }]
  })
  let right = width - 12
  const general = scene.general.map((cells) => {
    const bare = notePlateFor(ctx, cells)
    const plate = { ...bare, x: right - bare.width, y: height - bare.height - 8 }
    right = plate.x - 6
    return { plate, cells }
  })
  return { sizes, notes, general }
})

/** The way out of the material on the pane, square to the axis: plates stand in the clear. */
function directionOf(out: Vec, lie: 'lying' | 'standing'): Px {
  const away = out.y < -0.2 ? -1 : 1
  return lie === 'lying' ? { x: 0, y: -away } : { x: away, y: 0 }
}

/** Where a plate is tried: outwards, to the sides, and over the part where all of that is taken. */
const TRIED: readonly { readonly aside: number; readonly inwards: boolean }[] = [
  ...[0, 1, -1, 2, -2].map((aside) => ({ aside, inwards: false })),
  ...[0, 1, -1, 2, -2].map((aside) => ({ aside, inwards: true })),
]

/** The nearest place where a plate lies on no other, off the part and dimension lines if it can; on others at last. */
function clearPlate(
  bare: Plate,
  foot: Px,
  outwards: Px,
  placed: Rows,
  covered: Covered,
  { width, height }: Scene,
): Plate {
  let second: Plate | undefined
  let last: Plate | undefined
  for (const { aside, inwards } of TRIED) {
    if (inwards && second) return second
    const way = inwards ? { x: -outwards.x, y: -outwards.y } : outwards
    const reach = Math.abs(way.x) * (bare.width / 2)
    let before: Plate | undefined
    for (let far = 0; far < FARTHEST; far++) {
      const away = AWAY + far * STEP
      const beside = aside * (bare.width / 2 + BESIDE) * Math.abs(way.y)
      const at = {
        x: foot.x + way.x * (away + reach) + beside - bare.width / 2,
        y: foot.y + way.y * away - bare.height / 2 - Math.abs(way.x) * far * 6,
      }
      const plate = {
        ...bare,
        x: Math.min(width - bare.width - 2, Math.max(2, at.x)),
        y: Math.min(height - bare.height - 2, Math.max(2, at.y)),
      }
      // Held back at the border of the pane, it is where it was.
      if (before && before.x === plate.x && before.y === plate.y) break
      before = plate
      last ??= plate
      if (placed.meets(plate)) continue
      if (!covered.has(plate)) return plate
      second ??= plate
    }
  }
  return second ?? last ?? bare
}

/** A loop of a section, or its image below the axis, as corners in pixels. */
type Outline = readonly Px[]

/** Curves are told by chords within this, in pixels. */
const CHORD_PX = 2

function outlinesOf({ sections, view }: Scene): Outline[] {
  return sections.flatMap((section) =>
    loopsOf(section).flatMap((loop) =>
      [1, -1].map((side) =>
        loop.flatMap(({ piece }) =>
          pointsAlong(piece, CHORD_PX / view.scale)
            .slice(1)
            .map((p) => toScreen(view, { x: p.x, y: side * p.y })),
        ),
      ),
    ),
  )
}
