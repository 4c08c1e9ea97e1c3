import { threadArc, type ThreadCircle } from '@lathica/core/route'
import { BufferGeometry, Float32BufferAttribute, LineBasicMaterial, LineSegments } from 'three'

/** Threads on the solid: three quarters of a circle at the mouth of each hole, as on drawings. */
export class ThreadRings {
  readonly lines = new LineSegments(new BufferGeometry(), new LineBasicMaterial())

  constructor() {
    this.lines.frustumCulled = false
    this.lines.visible = false
    this.lines.renderOrder = 2
  }

  show(threads: readonly ThreadCircle[]): void {
    const positions = threads.flatMap((t) => {
      const places = threadArc(t)
      return places.slice(1).flatMap((b, i) => {
        const a = places[i] ?? b
        return [a.x, a.y, a.z, b.x, b.y, b.z]
      })
    })
    this.lines.geometry.dispose()
    this.lines.geometry = new BufferGeometry()
    this.lines.geometry.setAttribute('position', new Float32BufferAttribute(positions, 3))
    this.lines.visible = positions.length > 0
  }

  dispose(): void {
    this.lines.geometry.dispose()
    this.lines.material.dispose()
  }
}
