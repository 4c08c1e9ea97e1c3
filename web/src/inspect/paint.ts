import type { Apart } from '@lathica/core/geometry'
import { edgesOf, type Section } from '@lathica/core/section'
import type { Measured } from '@lathica/core/inspect'
import type { Colours } from '../board/colours'
import { paintPlate, plateFor } from '../board/paint/plate'
import { areaPath, mirroredPath, paintRefs, paintSections } from '../board/paint/section'
import { paintAxis } from '../board/paint/sketch'
import type { Scene } from '../board/paint/scene'
import type { SectionRef } from '../board/refs'
import { acrossPane, toScreen, type Px, type View } from '../board/view'

/** A measure as it is drawn: from where to where, on the section or in space, and its words. */
export interface ShownMeasure {
  readonly way?: Pick<Apart, 'from' | 'to'>
  readonly space?: NonNullable<Measured['space']>
  readonly words: string
}

/** What the inspection's section shows. */
export interface SectionPicture {
  readonly view: View
  readonly width: number
  readonly height: number
  readonly colours: Colours
  readonly sections: readonly Section[]
  readonly marked: readonly SectionRef[]
  readonly hover: SectionRef | undefined
  readonly axisPicked: boolean
  readonly measure: ShownMeasure | undefined
  /** What of a room is filled. */
  readonly liquid: Section | undefined
  /** The chart's cursor along the axis, in mm. */
  readonly cursor: number | undefined
}

/** Paints the section as it stands, without profile and sizes, with what is measured on it. */
export function paintInspection(ctx: CanvasRenderingContext2D, picture: SectionPicture): void {
  const { width, height, colours } = picture
  const scene: Scene = {
    ...picture,
    unit: 1,
    end: undefined,
    drawnSteps: new Set(),
    receding: true,
    sketch: undefined,
    behind: [],
    sketchState: undefined,
    sizes: [],
    picks: new Set(picture.axisPicked ? ['axis'] : []),
    hover: undefined,
    troubled: new Set(),
    overlay: undefined,
    hoverRef: picture.hover,
    tool: undefined,
    marks: [],
    notes: [],
    threads: [],
    general: [],
    zones: [],
    knurls: [],
    areas: [],
    grid: undefined,
  }
  ctx.fillStyle = colours.paper
  ctx.fillRect(0, 0, width + 1, height + 1)
  if (picture.liquid) paintLiquid(ctx, picture, picture.liquid)
  paintSections(ctx, scene)
  paintAxis(ctx, scene)
  paintRefs(ctx, scene)
  const { measure } = picture
  if (measure?.way) paintMeasure(ctx, picture, measure.way, measure.words)
  if (picture.cursor !== undefined) paintCursor(ctx, picture, picture.cursor)
}

/** What fills a vessel, on both sides of the axis, with its surface as a line. */
function paintLiquid(
  ctx: CanvasRenderingContext2D,
  { view, colours }: SectionPicture,
  liquid: Section,
): void {
  ctx.fillStyle = colours.accent
  ctx.globalAlpha = 0.22
  const area = areaPath(liquid, { view })
  for (const path of [area, mirroredPath(area, { view })]) ctx.fill(path, 'evenodd')
  ctx.globalAlpha = 1
  const surface = Math.max(...edgesOf(liquid).flatMap((e) => [e.piece.from.x, e.piece.to.x]))
  const radius = Math.max(
    0,
    ...edgesOf(liquid).flatMap(({ piece }) =>
      [piece.from, piece.to].flatMap((p) => (surface - p.x < 1e-6 ? p.y : [])),
    ),
  )
  if (!Number.isFinite(surface)) return
  const [a, b] = [radius, -radius].map((y) => toScreen(view, { x: surface, y }))
  if (!a || !b) return
  ctx.strokeStyle = colours.accent
  ctx.lineWidth = 1.5
  ctx.beginPath()
  ctx.moveTo(a.x, a.y)
  ctx.lineTo(b.x, b.y)
  ctx.stroke()
}

function paintMeasure(
  ctx: CanvasRenderingContext2D,
  { view, colours, width, height }: SectionPicture,
  way: NonNullable<ShownMeasure['way']>,
  words: string,
): void {
  const [a, b] = [toScreen(view, way.from), toScreen(view, way.to)]
  ctx.strokeStyle = ctx.fillStyle = colours.halo
  ctx.lineWidth = 2
  ctx.beginPath()
  ctx.moveTo(a.x, a.y)
  ctx.lineTo(b.x, b.y)
  ctx.stroke()
  for (const p of [a, b]) {
    ctx.beginPath()
    ctx.arc(p.x, p.y, 3.2, 0, 2 * Math.PI)
    ctx.fill()
  }
  const at = middle(a, b)
  const bare = plateFor(ctx, words, { x: 0, y: 0 })
  const plate = {
    ...bare,
    x: Math.min(width - bare.width - 4, Math.max(4, at.x + 8)),
    y: Math.min(height - bare.height - 4, Math.max(4, at.y - 26)),
  }
  paintPlate(ctx, words, plate, colours)
}

const middle = (a: Px, b: Px): Px => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })

/** A line square to the axis through a place. */
function paintCursor(
  ctx: CanvasRenderingContext2D,
  { view, colours, width, height }: SectionPicture,
  cursor: number,
): void {
  const [a, b] = acrossPane(view, cursor, width, height)
  ctx.strokeStyle = colours.halo
  ctx.lineWidth = 1.2
  ctx.beginPath()
  ctx.moveTo(a.x, a.y)
  ctx.lineTo(b.x, b.y)
  ctx.stroke()
}
