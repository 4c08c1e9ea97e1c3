import { DISPLAY_CHORD_TOLERANCE } from '@lathica/core/tolerances'
import { edgeKey, extentOf, loopsOf, type Section } from '@lathica/core/section'
import { latheMesh, silhouetteOf, type Eye, type LatheMesh, type Span } from '@lathica/core/mesh'
import { Box3, BufferAttribute, Vector3, type BufferGeometry, type Group } from 'three'
import { capsOf, type CapTones, type CutSpec } from './cutting'
import { DrawnBody, type DrawnFace, type Manner, type ShownBody } from './drawnBody'

/** A mesh and the section it was made of. */
interface Made {
  readonly section: Section
  readonly mesh: LatheMesh
}

/** A body that is a full turn, drawn straight from its section. */
export class TurnedBody extends DrawnBody {
  private section: Section
  private fine: Made
  /** A mesh of few triangles for while the part turns or changes; made when it is first shown. */
  private rough: Made | undefined
  /** What the surface shows. */
  private filled: LatheMesh | undefined
  private isRough = false

  constructor(section: Section) {
    super()
    this.section = section
    this.fine = { section, mesh: latheMesh(section, chordFor(section)) }
  }

  bounds(): Box3 {
    const [from, to] = extentOf(this.section)
    const r = radiusOf(this.section)
    return new Box3(new Vector3(-r, -r, from), new Vector3(r, r, to))
  }

  get triangles(): number {
    return this.fine.mesh.indices.length / 3
  }

  show(body: ShownBody, manner: Manner, number: number): void {
    const changed = body.section !== this.section
    this.section = body.section
    this.dress(body, manner)
    this.showSaid(body, body.section, manner)
    this.cap(manner, number % 2 === 1, changed)
  }

  protected capsFor(cut: CutSpec, pitch: number, leansBack: boolean, tones: CapTones): Group {
    return capsOf(this.section, cut, pitch, leansBack, tones)
  }

  setRough(rough: boolean): void {
    this.isRough = rough
    // Lines cost more than triangles where there is no graphics card.
    this.edges.visible = this.outline.visible && !rough
    if (rough) this.showRough()
    else this.showFine()
  }

  private showRough(): void {
    const { section } = this
    if (this.rough?.section !== section) {
      this.rough = { section, mesh: latheMesh(section, ROUGH * radiusOf(section)) }
    }
    this.showMesh(this.rough.mesh)
  }

  private showFine(): void {
    const { section, fine } = this
    if (fine.section !== section) {
      const mesh = latheMesh(section, chordFor(section), fine.mesh)
      this.fine = { section, mesh }
      if (mesh.positions === fine.mesh.positions && this.filled === fine.mesh) {
        this.rewrite(mesh)
        this.filled = mesh
      }
    }
    this.showMesh(this.fine.mesh)
  }

  private showMesh(mesh: LatheMesh): void {
    if (this.filled === mesh) return
    this.filled = mesh
    this.fill(mesh)
  }

  lookFrom(eye: Eye): void {
    if (!this.outline.visible) return
    const chord = this.isRough ? ROUGH * radiusOf(this.section) : chordFor(this.section)
    this.drawOutline(silhouetteOf(this.section, eye, chord))
  }

  protected facesDrawn(): readonly DrawnFace[] {
    const mesh = this.filled ?? this.fine.mesh
    const { section } = this.rough?.mesh === mesh ? this.rough : this.fine
    const edges = loopsOf(section).flat()
    return mesh.faces.flatMap(({ edge, start, count }) => {
      const found = edges[edge]
      return found ? [{ name: edgeKey(found.name), start, count }] : []
    })
  }

  /** The same buffers with other places in them. */
  private rewrite(mesh: LatheMesh): void {
    const { vertices, edges } = mesh.written
    markWritten(this.surface.geometry, ['position', 'normal'], vertices)
    markWritten(this.edges.geometry, ['position'], edges)
  }
}

/** The chords of a rough mesh, as a share of the radius: about forty steps round the axis. */
const ROUGH = 0.003

/** Small parts get finer chords than the usual tolerance, large ones never more than it takes. */
export function chordFor(section: Section): number {
  return Math.min(DISPLAY_CHORD_TOLERANCE, Math.max(1e-5, radiusOf(section) / 1200))
}

/** The greatest radius at an end of an edge, in mm; nought without material. */
export function radiusOf(section: Section): number {
  return section.regions
    .flatMap((r) => r.outer)
    .reduce((most, e) => Math.max(most, e.piece.from.y, e.piece.to.y), 0)
}

/** Sends only what was written to the graphics card. */
function markWritten(geometry: BufferGeometry, names: readonly string[], span: Span): void {
  if (span.count === 0) return
  for (const name of names) {
    const attribute = geometry.getAttribute(name)
    if (!(attribute instanceof BufferAttribute)) continue
    attribute.addUpdateRange(3 * span.first, 3 * span.count)
    attribute.needsUpdate = true
  }
}
