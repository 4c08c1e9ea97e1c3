import { lengthOf, pointAt, pointsAlong, type Vec } from '@lathica/core/geometry'
import type { Pole, SectionEdge } from '@lathica/core/section'
import { BufferAttribute, BufferGeometry, LineBasicMaterial, LineSegments } from 'three'
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js'
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js'
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js'
import { edgesIn, type SectionRef } from '../board/refs'

/** The tone of what is lit: the halo of the board. */
export const GLOW = '#b7822e'
/** How wide an edge of a solid is lit, in pixels. */
const BOLD = 3.5
/** Steps round the axis of what is lit. */
const GLOW_STEPS = 96
/** Circles along a straight face. */
const ROWS = 14
/** How far the circles about a point on the axis go, as a share of the edge that ends there. */
const POLE_SHARE = 0.08

/** What can be lit: a face, a circular edge, a point on the axis, or just a place along the axis and its radius. */
export type Lit = Partial<SectionRef> & { readonly place?: Vec }

/** Faces and circular edges lit by rings round the axis. */
export class Glow {
  readonly lines = new LineSegments(new BufferGeometry(), new LineBasicMaterial({ color: GLOW }))

  /** Edges of a solid, drawn boldly and through what stands before them. */
  readonly rims = new LineSegments2(
    new LineSegmentsGeometry(),
    new LineMaterial({ color: GLOW, linewidth: BOLD, depthTest: false }),
  )

  constructor() {
    this.lines.frustumCulled = false
    this.lines.visible = false
    this.lines.renderOrder = this.rims.renderOrder = 3
    this.rims.frustumCulled = false
    this.rims.visible = false
  }

  light(items: readonly Lit[]): void {
    this.lines.geometry.dispose()
    this.lines.geometry = ringsOf(items.flatMap(placesOf))
    this.lines.visible = items.length > 0
    const rims = items.flatMap(({ rim }) => [...(rim ?? [])])
    this.rims.geometry.dispose()
    this.rims.geometry = new LineSegmentsGeometry()
    if (rims.length > 0) this.rims.geometry.setPositions(rims)
    this.rims.visible = rims.length > 0
  }

  dispose(): void {
    this.lines.geometry.dispose()
    this.lines.material.dispose()
    this.rims.geometry.dispose()
    this.rims.material.dispose()
  }
}

/** A circular edge as its circle; a face as circles along it, close enough to read as a surface. */
function placesOf({ edge, whole, corner, pole, place }: Lit): Vec[] {
  return [
    ...[corner?.at ?? [], place ?? [], pole ? roundPole(pole) : []].flat(),
    ...edgesIn({ ...(edge && { edge }), ...(whole && { whole }) }).flatMap(alongFace),
  ]
}

function alongFace({ piece }: SectionEdge): Vec[] {
  if (piece.kind !== 'line') return pointsAlong(piece, 0.05)
  return Array.from({ length: ROWS + 1 }, (_, i) => pointAt(piece, i / ROWS))
}

/** A point is seen by small circles about it. */
function roundPole({ at, edge }: Pole): Vec[] {
  const size = POLE_SHARE * lengthOf(edge.piece)
  return [1, 2, 3].map((k) => ({ x: at.x, y: (k * size) / 3 }))
}

function ringsOf(places: readonly Vec[]): BufferGeometry {
  const positions: number[] = []
  for (const { x, y } of places) {
    for (let i = 0; i < GLOW_STEPS; i++) {
      for (const k of [i, i + 1]) {
        const angle = (2 * Math.PI * k) / GLOW_STEPS
        positions.push(y * Math.cos(angle), y * Math.sin(angle), x)
      }
    }
  }
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3))
  return geometry
}
