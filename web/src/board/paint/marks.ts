import { pointsAlong, type Vec } from '@lathica/core/geometry'
import { loopsOf } from '@lathica/core/section'
import { toScreen, type Px } from '../view'
import { overlap, paintPlate, plateFor, type Plate } from './plate'
import { cellsOf, notePlateFor, paintNotePlate } from './notePlate'
import type { Scene } from './scene'

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

/** The sizes of the step that is looked at, and what is said of faces, on plates beside them. */
export function paintMarks(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { view, colours, width, height } = scene
  // The labels of sizes lie over the picture: plates keep clear of them.
  const placed: Plate[] = scene.sizes.map(({ label, width: wide }) => ({
    ...{ x: label.x - wide / 2, y: label.y - LABEL_HIGH / 2 },
    ...{ width: wide, height: LABEL_HIGH },
  }))
  const outlines = scene.marks.length + scene.notes.length > 0 ? outlinesOf(scene) : []
  const inSight = ({ x, y }: Px): boolean => x >= 0 && y >= 0 && x <= width && y <= height
  const leader = (foot: Px, plate: Plate, colour: string): void => {
    ctx.strokeStyle = colour
    ctx.lineWidth = 1
    ctx.beginPath()
    ctx.moveTo(foot.x, foot.y)
    ctx.lineTo(plate.x + plate.width / 2, plate.y + plate.height / 2)
    ctx.stroke()
    ctx.beginPath()
    ctx.arc(foot.x, foot.y, 2.4, 0, 2 * Math.PI)
    ctx.fillStyle = colour
    ctx.fill()
  }
  for (const { at, words, out } of scene.marks) {
    const foot = toScreen(view, at)
    if (!inSight(foot)) continue
    const bare = plateFor(ctx, words, { x: 0, y: 0 })
    const plate = clearPlate(bare, foot, directionOf(out, view.lie), placed, outlines, scene)
    if (!plate) continue
    placed.push(plate)
    leader(foot, plate, colours.ink)
    paintPlate(ctx, words, plate, colours)
  }
  const set = scene.notes.flatMap((mark) => {
    const foot = toScreen(view, mark.at)
    if (!inSight(foot)) return []
    const cells = cellsOf(mark)
    const bare = notePlateFor(ctx, cells)
    const plate = clearPlate(bare, foot, directionOf(mark.out, view.lie), placed, outlines, scene)
    if (!plate) return []
    placed.push(plate)
    return [{ foot, plate, cells, wrong: mark.wrong }]
  })
  // A leader may run behind the plate of another note.
  for (const { foot, plate, wrong } of set) {
    leader(foot, plate, wrong ? colours.conflict : colours.inkSoft)
  }
  for (const { plate, cells, wrong } of set) paintNotePlate(ctx, cells, plate, colours, wrong)
  paintGeneral(ctx, scene)
}

/** What holds for all other faces and sizes, in the lower right corner. */
function paintGeneral(ctx: CanvasRenderingContext2D, scene: Scene): void {
  let right = scene.width - 12
  for (const cells of scene.general) {
    const bare = notePlateFor(ctx, cells)
    const plate = { ...bare, x: right - bare.width, y: scene.height - bare.height - 8 }
    paintNotePlate(ctx, cells, plate, scene.colours, false)
    right = plate.x - 6
  }
}

/** The way out of the material on the pane, square to the axis: plates stand in the clear. */
function directionOf(out: Vec, lie: 'lying' | 'standing'): Px {
  const away = out.y < -0.2 ? -1 : 1
  return lie === 'lying' ? { x: 0, y: -away } : { x: away, y: 0 }
}

/** The nearest place outwards of a face where its plate lies on no other, beside it where none is free. */
function clearPlate(
  bare: Plate,
  foot: Px,
  way: Px,
  placed: readonly Plate[],
  outlines: readonly Outline[],
  { width, height }: Scene,
): Plate | undefined {
  const reach = Math.abs(way.x) * (bare.width / 2)
  // Where none is clear of the part, one clear of other plates has to do.
  let second: Plate | undefined
  for (const aside of [0, 1, -1, 2, -2]) {
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
      if (placed.some((p) => overlap(p, plate))) continue
      if (!outlines.some((o) => covers(plate, o))) return plate
      second ??= plate
    }
  }
  return second
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

/** Whether a plate lies over an outline or within it. */
function covers({ x, y, width, height }: Plate, outline: Outline): boolean {
  const [right, low] = [x + width, y + height]
  let inside = false
  for (const [i, p] of outline.entries()) {
    const q = outline[(i + 1) % outline.length] ?? p
    if (crossesBox(p, q, x, y, right, low)) return true
    const middle = y + height / 2
    if (p.y > middle !== q.y > middle) {
      const at = p.x + ((middle - p.y) / (q.y - p.y)) * (q.x - p.x)
      if (at > x + width / 2) inside = !inside
    }
  }
  return inside
}

/** Whether a stretch from one place to another comes into a box: what is left of it once it is cut at its four sides. */
function crossesBox(p: Px, q: Px, left: number, top: number, right: number, low: number): boolean {
  let [from, to] = [0, 1]
  for (const [start, way, min, max] of [
    [p.x, q.x - p.x, left, right],
    [p.y, q.y - p.y, top, low],
  ] as const) {
    if (way === 0) {
      if (start < min || start > max) return false
      continue
    }
    const [a, b] = [(min - start) / way, (max - start) / way]
    from = Math.max(from, Math.min(a, b))
    to = Math.min(to, Math.max(a, b))
  }
  return from < to
}
