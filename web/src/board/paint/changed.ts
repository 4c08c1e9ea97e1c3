import { boundsOf, type Box } from '@lathica/core/geometry'
import { locator, piecesOf, pointsOf, type Sketch } from '@lathica/core/sketch'
import { loopsOf, type Section } from '@lathica/core/section'
import type { SizeDrawing } from '../sizes/setting'
import { toScreen, type Px } from '../view'
import { REACH } from './patch'
import type { Patch, Scene } from './scene'

/** What covers more of the pane than this is painted with all of it. */
const MOST = 0.6

/**
 * Where two pictures of the board differ, as far as only moved points, what is turned of them and
 * their sizes do: with every move of a drag. All of the pane where anything else has changed.
 * @returns undefined where they do not differ
 */
export function changedPatch(before: Scene, after: Scene): Patch | 'all' | undefined {
  if (!isAlike(before, after) || !before.sketch || !after.sketch) return 'all'
  const patch = new Growing(after)
  const known =
    growBySketch(patch, before.sketch, after.sketch) &&
    growBySections(patch, before.sections, after.sections) &&
    growBySizes(patch, before.sizes, after.sizes)
  return known ? patch.within(after.width, after.height) : 'all'
}

/** Whether all but places is the same. */
function isAlike(a: Scene, b: Scene): boolean {
  return (
    a.view === b.view &&
    a.width === b.width &&
    a.height === b.height &&
    a.unit === b.unit &&
    a.colours === b.colours &&
    a.end === b.end &&
    a.receding === b.receding &&
    a.hover === b.hover &&
    a.hoverRef === b.hoverRef &&
    a.tool === b.tool &&
    a.grid === b.grid &&
    a.picture?.placed === b.picture?.placed &&
    a.picture?.image === b.picture?.image &&
    a.check === undefined &&
    b.check === undefined &&
    isSame(a.behind, b.behind) &&
    isSame(a.areas, b.areas) &&
    isSame(a.marked, b.marked) &&
    isSame(a.marks, b.marks) &&
    isSame(a.notes, b.notes) &&
    isSame(a.threads, b.threads) &&
    isSame(a.zones, b.zones) &&
    isSame(a.knurls, b.knurls) &&
    isSame(a.general, b.general) &&
    isSame([...a.picks], [...b.picks]) &&
    isSame([...a.troubled], [...b.troubled]) &&
    isSame([...a.drawnSteps], [...b.drawnSteps]) &&
    (a.overlay === b.overlay || (isBare(a.overlay) && isBare(b.overlay))) &&
    hasNoFaults(a) &&
    hasNoFaults(b) &&
    hasSameInk(a, b)
  )
}

const isSame = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x === b[i]))

/** Nothing of it is painted. */
function isBare(overlay: Scene['overlay']): boolean {
  const { rubber = [], guides = [], marks = [], box, mark, band } = overlay ?? {}
  return rubber.length + guides.length + marks.length === 0 && !box && !mark && !band
}

const hasNoFaults = ({ sketchState }: Scene): boolean =>
  (sketchState?.profile.faults.length ?? 0) === 0

/** Whether the same points are held. */
function hasSameInk(a: Scene, b: Scene): boolean {
  const [one, two] = [a, b].map((s) => s.sketchState?.solution.pointFreedoms)
  if (one === two) return true
  if (!one || one.size !== two?.size) return false
  for (const [id, freedoms] of one) {
    if ((freedoms === 0) !== (two.get(id) === 0)) return false
  }
  return true
}

/** @returns false where more than places has changed */
function growBySketch(patch: Growing, before: Sketch, after: Sketch): boolean {
  if (before === after) return true
  if (before.id !== after.id || before.entities !== after.entities) return false
  if (before.points.length !== after.points.length) return false
  const moved = new Set<string>()
  for (const [i, p] of before.points.entries()) {
    const q = after.points[i]
    if (q?.id !== p.id) return false
    if (p.x === q.x && p.y === q.y) continue
    moved.add(p.id)
    patch.place(p.x, p.y)
    patch.place(q.x, q.y)
  }
  if (moved.size === 0) return true
  const [one, two] = [locator(before), locator(after)]
  for (const e of after.entities) {
    if (!pointsOf(e).some((p) => moved.has(p))) continue
    for (const where of [one, two]) {
      for (const piece of piecesOf(e, where)) patch.box(boundsOf(piece))
    }
  }
  return true
}

function growBySections(
  patch: Growing,
  before: readonly Section[],
  after: readonly Section[],
): boolean {
  if (before.length !== after.length) return false
  before.forEach((old, i) => {
    const now = after[i]
    if (!now || old === now) return
    const [one, two] = [old, now].map((s) => loopsOf(s).flat())
    const isRenewed = one?.length !== two?.length
    one?.forEach(({ piece }, k) => {
      const other = two?.[k]
      if (!isRenewed && other && isSamePiece(piece, other.piece)) return
      // The image below the axis, and the lines between both at corners.
      patch.mirrored(boundsOf(piece))
      if (!isRenewed && other) patch.mirrored(boundsOf(other.piece))
    })
    if (isRenewed) two?.forEach(({ piece }) => patch.mirrored(boundsOf(piece)))
  })
  return true
}

type Piece = Parameters<typeof boundsOf>[0]

function isSamePiece(a: Piece, b: Piece): boolean {
  if (!isAt(a.from, b.from) || !isAt(a.to, b.to)) return false
  if (a.kind === 'line') return b.kind === 'line'
  if (a.kind !== 'arc' || b.kind !== 'arc') return false
  return isAt(a.centre, b.centre) && a.counterClockwise === b.counterClockwise
}

function growBySizes(
  patch: Growing,
  before: readonly SizeDrawing[],
  after: readonly SizeDrawing[],
): boolean {
  if (before === after) return true
  const old = new Map(before.map((d) => [d.id, d]))
  for (const now of after) {
    const was = old.get(now.id)
    old.delete(now.id)
    if (was && isSameDrawing(was, now)) continue
    if (was) patch.pixels(placesOf(was))
    patch.pixels(placesOf(now))
  }
  for (const gone of old.values()) patch.pixels(placesOf(gone))
  return true
}

function isSameDrawing(a: SizeDrawing, b: SizeDrawing): boolean {
  return (
    areSameEnds(a.lines, b.lines) &&
    areSameEnds(a.witnesses, b.witnesses) &&
    areSameEnds(a.arrows, b.arrows) &&
    (a.arc === b.arc || isSame(placesOf(a), placesOf(b)))
  )
}

function areSameEnds(a: SizeDrawing['lines'], b: SizeDrawing['lines']): boolean {
  if (a.length !== b.length) return false
  return a.every(([from, to], i) => {
    const other = b[i]
    return other !== undefined && isAt(from, other[0]) && isAt(to, other[1])
  })
}

const isAt = (p: Px, q: Px): boolean => p.x === q.x && p.y === q.y

/** Places that a drawing of a size lies between, x and y of each, in pixels. */
function placesOf({ lines, witnesses, arrows, arc }: SizeDrawing): number[] {
  const places: number[] = []
  for (const ends of [lines, witnesses, arrows]) {
    for (const [a, b] of ends) places.push(a.x, a.y, b.x, b.y)
  }
  if (arc) {
    const { centre, radius, from, to } = arc
    places.push(centre.x - radius, centre.y - radius, centre.x + radius, centre.y + radius)
    places.push(from.x, from.y, to.x, to.y)
  }
  return places
}

/** A patch that grows by what it is to hold. */
class Growing {
  private left = Infinity
  private top = Infinity
  private right = -Infinity
  private bottom = -Infinity

  constructor(private readonly scene: Scene) {}

  place(x: number, y: number): void {
    const at = toScreen(this.scene.view, { x, y })
    this.pixel(at.x, at.y)
  }

  box({ min, max }: Box): void {
    this.place(min.x, min.y)
    this.place(max.x, max.y)
  }

  mirrored({ min, max }: Box): void {
    this.box({ min, max })
    this.place(min.x, -max.y)
  }

  pixels(places: readonly number[]): void {
    for (let i = 0; i < places.length; i += 2) this.pixel(places[i] ?? 0, places[i + 1] ?? 0)
  }

  private pixel(x: number, y: number): void {
    this.left = Math.min(this.left, x)
    this.top = Math.min(this.top, y)
    this.right = Math.max(this.right, x)
    this.bottom = Math.max(this.bottom, y)
  }

  within(width: number, height: number): Patch | 'all' | undefined {
    const [left, top] = [Math.max(0, this.left - REACH), Math.max(0, this.top - REACH)]
    const right = Math.min(width + 1, this.right + REACH)
    const bottom = Math.min(height + 1, this.bottom + REACH)
    if (right <= left || bottom <= top) return undefined
    const isMost = (right - left) * (bottom - top) > MOST * width * height
    return isMost ? 'all' : [left, top, right, bottom]
  }
}
