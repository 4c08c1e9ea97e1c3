import { edgeKey, edgesOf, type Section } from '@lathica/core/section'
import { leftNormal } from '@lathica/core/geometry'
import { BufferAttribute, BufferGeometry, LineBasicMaterial, LineSegments } from 'three'

/** Lines round a land, as a thread or a knurl has them. */
export interface LinesRound {
  /** Where they begin and end along the axis, in mm. */
  readonly from: number
  readonly to: number
  readonly radius: number
  /** Angles to the axis in radians, and how many lines of each stand round it; one square to it is a ring. */
  readonly families: readonly { readonly angle: number; readonly many: number }[]
  /** From one ring to the next, in mm. */
  readonly pitch: number
}

/** What is shown of a face because of what is said of it. */
export interface SaidFace {
  readonly on: string
  /** Its own colour and finish; that of its body, toned, where this is left out. */
  readonly colour?: { readonly of: string; readonly finish: 'matt' | 'polished' }
  readonly lines?: LinesRound
}

/** More lines of a family than this are not told apart. */
const MOST_LINES = 220
/** Steps of a line for a whole turn. */
const STEPS = 48
/** Lines stand this share of the radius before the face, to be seen. */
const BEFORE = 0.002

/** Threads and knurls as lines over their lands; the geometry is left as it is. */
export class SaidLines {
  readonly object = new LineSegments(
    new BufferGeometry(),
    new LineBasicMaterial({ transparent: true, opacity: 0.5 }),
  )
  private said: readonly SaidFace[] = []
  private section: Section | undefined

  constructor() {
    this.object.frustumCulled = false
    this.object.visible = false
    this.object.renderOrder = 1
  }

  show(said: readonly SaidFace[], section: Section, colour: string): void {
    this.object.material.color.set(colour)
    if (this.said.length === 0 && said.length === 0) return
    if (this.said === said && this.section === section) return
    this.said = said
    this.section = section
    const positions = said.flatMap(({ on, lines }) => (lines ? linesOn(lines, section, on) : []))
    this.object.geometry.dispose()
    this.object.geometry = new BufferGeometry().setAttribute(
      'position',
      new BufferAttribute(new Float32Array(positions), 3),
    )
    this.object.visible = positions.length > 0
  }

  dispose(): void {
    this.object.geometry.dispose()
    this.object.material.dispose()
  }
}

/** x, y and z of both ends of every stretch of line, on the pieces of the land that are there. */
function linesOn(lines: LinesRound, section: Section, on: string): number[] {
  const edges = edgesOf(section).filter((e) => edgeKey(e.name) === on)
  const positions: number[] = []
  const [first] = edges
  if (!first) return positions
  const outwards = -Math.sign(leftNormal(first.piece, 0.5).y)
  const radius = lines.radius * (1 + BEFORE * outwards)
  const put = (x: number, angle: number): void => {
    positions.push(radius * Math.cos(angle), radius * Math.sin(angle), x)
  }
  for (const { piece } of edges) {
    const low = Math.max(lines.from, Math.min(piece.from.x, piece.to.x))
    const high = Math.min(lines.to, Math.max(piece.from.x, piece.to.x))
    if (high <= low) continue
    for (const { angle, many } of lines.families) {
      const isRound = angle >= Math.PI / 2 - 1e-9
      const count = isRound ? Math.floor((high - low) / lines.pitch) : many
      const shown = Math.max(1, Math.min(MOST_LINES, count))
      const turn = isRound ? 2 * Math.PI : (Math.tan(angle) * (high - low)) / lines.radius
      const steps = Math.max(1, Math.ceil((Math.abs(turn) / (2 * Math.PI)) * STEPS))
      const along = isRound ? 0 : high - low
      for (let i = 0; i < shown; i++) {
        const [x, start] = isRound
          ? [low + ((high - low) * (i + 0.5)) / shown, 0]
          : [low, (2 * Math.PI * i) / shown]
        for (let k = 0; k < steps; k++) {
          put(x + (along * k) / steps, start + (turn * k) / steps)
          put(x + (along * (k + 1)) / steps, start + (turn * (k + 1)) / steps)
        }
      }
    }
  }
  return positions
}
