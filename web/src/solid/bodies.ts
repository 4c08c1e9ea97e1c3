import {
  DISPLAY_CHORD_TOLERANCE,
  latheMesh,
  silhouetteOf,
  type Eye,
  type LatheMesh,
  type Look,
  type Section,
  type Span,
} from '@lathica/core'
import {
  BufferAttribute,
  BufferGeometry,
  GreaterDepth,
  Group,
  LineBasicMaterial,
  LineDashedMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  type Material,
  type Plane,
} from 'three'
import type { Display } from '../store/look'
import { capsOf, dropCaps, type CutSpec } from './cutting'
import { EDGE_STRENGTH, surfaceOf, type Tones } from './looks'

/** A body as the solid pane shows it. */
export interface ShownBody {
  readonly id: string
  readonly section: Section
  readonly colour: string
  readonly look: Look
  /** Seen through, whatever the display. */
  readonly glassy: boolean
}

/** What all bodies are drawn with. */
export interface Manner {
  readonly display: Display
  readonly tones: Tones
  readonly cut: CutSpec | undefined
  /** The planes of the cut, in the space of the scene. */
  readonly planes: readonly Plane[]
  /** The pitch of the hatch on cut faces, in mm. */
  readonly pitch: number
}

/** A body's objects in the scene; it knows how to follow its section and the manner of drawing. */
export class SolidBody {
  readonly group = new Group()
  private mesh: LatheMesh
  private section: Section
  private readonly surface = new Mesh(new BufferGeometry(), new MeshBasicMaterial() as Material)
  private readonly edges = new LineSegments(new BufferGeometry(), new LineBasicMaterial())
  /** The same edges where something stands before them, in dashes. */
  private readonly behind = new LineSegments(this.edges.geometry, new LineDashedMaterial())
  private readonly outline = new LineSegments(new BufferGeometry(), this.edges.material)
  private caps: Group | undefined
  /** A mesh of few triangles for while one turns, and whether it is shown. */
  private rough: { readonly section: Section; readonly mesh: LatheMesh } | undefined
  private isRough = false
  private drawn = ''
  private capped = ''

  constructor(section: Section) {
    this.section = section
    this.mesh = latheMesh(section, chordFor(section))
    this.behind.material.depthFunc = GreaterDepth
    this.behind.material.depthWrite = false
    // Bounds are not kept up to date while sizes change, so nothing is culled by them.
    for (const object of [this.surface, this.edges, this.behind, this.outline]) {
      object.frustumCulled = false
      this.group.add(object)
    }
    this.fill(this.mesh, true)
  }

  get triangles(): number {
    return this.mesh.indices.length / 3
  }

  /** The surface's geometry, for its bounds. */
  get geometry(): BufferGeometry {
    return this.surface.geometry
  }

  /** Takes another section, and draws it in a manner. */
  show(body: ShownBody, manner: Manner, number: number): void {
    const changed = body.section !== this.section
    if (changed) {
      const next = latheMesh(body.section, chordFor(body.section), this.mesh)
      const fresh = next.positions !== this.mesh.positions
      this.section = body.section
      this.mesh = next
      this.fill(next, fresh || this.isRough)
      this.isRough = false
    }
    this.dress(body, manner)
    this.cap(manner, number % 2 === 1, changed)
  }

  private dress({ look, colour, glassy }: ShownBody, manner: Manner): void {
    const { display, tones, planes } = manner
    const key = [display, look, colour, glassy, JSON.stringify(tones), planes.length].join()
    if (key !== this.drawn) {
      this.drawn = key
      this.surface.material.dispose()
      const material = surfaceOf(display, look, colour, glassy, tones)
      this.surface.visible = material !== undefined
      this.surface.material = material ?? new MeshBasicMaterial()
      this.surface.castShadow = display === 'studio' && !glassy
      this.surface.receiveShadow = display === 'studio'
      // What is seen through is drawn after what stands behind it.
      this.surface.renderOrder = this.surface.material.transparent ? 2 : 0
      const strength = EDGE_STRENGTH[display]
      this.edges.visible = this.outline.visible = strength > 0
      Object.assign(this.edges.material, { transparent: strength < 1, opacity: strength })
      this.edges.material.color.set(tones.edge)
      this.behind.visible = display === 'hidden'
      Object.assign(this.behind.material, { transparent: true, opacity: 0.45 })
      this.behind.material.color.set(tones.edge)
      this.edges.renderOrder = this.outline.renderOrder = 1
    }
    for (const material of [this.surface.material, this.edges.material, this.behind.material]) {
      material.clippingPlanes = planes as Plane[]
      // Only what lies behind all planes goes: a wedge, not all but a quarter.
      material.clipIntersection = true
    }
  }

  private cap(manner: Manner, leaning: boolean, changed: boolean): void {
    const { cut, display, tones, pitch } = manner
    const key = cut && display !== 'edges' ? [JSON.stringify([cut, tones]), pitch].join() : ''
    if (key === this.capped && !(changed && key !== '')) return
    this.capped = key
    if (this.caps) {
      this.group.remove(this.caps)
      dropCaps(this.caps)
      this.caps = undefined
    }
    if (key === '' || !cut) return
    const face = tones.dark ? '#3a4248' : '#f4efdf'
    const line = tones.dark ? '#9aa3a3' : '#6d726f'
    this.caps = capsOf(this.section, cut, pitch, leaning, { face, line, edge: tones.edge })
    this.group.add(this.caps)
  }

  /** Shows few triangles while many would hold up the hand, or all of them again. */
  setRough(rough: boolean): void {
    if (rough === this.isRough) return
    this.isRough = rough
    // Lines cost more than triangles where there is no graphics card.
    this.edges.visible = this.outline.visible && !rough
    if (!rough) {
      this.fill(this.mesh, true)
      return
    }
    if (this.rough?.section !== this.section) {
      const mesh = latheMesh(this.section, ROUGH * radiusOf(this.section))
      this.rough = { section: this.section, mesh }
    }
    this.fill(this.rough.mesh, true)
  }

  /** Draws the outline as it is seen from an eye in the model's space. */
  lookFrom(eye: Eye): void {
    if (!this.outline.visible) return
    const chord = this.isRough ? ROUGH * radiusOf(this.section) : chordFor(this.section)
    const places = silhouetteOf(this.section, eye, chord)
    const { geometry } = this.outline
    const known = geometry.getAttribute('position') as BufferAttribute | undefined
    if (known?.array.length === places.length) {
      ;(known.array as Float32Array).set(places)
      known.needsUpdate = true
    } else {
      geometry.dispose()
      this.outline.geometry = new BufferGeometry().setAttribute(
        'position',
        new BufferAttribute(places, 3),
      )
    }
  }

  /** Dashes of hidden edges are as long as this, in mm. */
  dash(length: number): void {
    if (!this.behind.visible) return
    this.behind.computeLineDistances()
    this.behind.material.dashSize = length
    this.behind.material.gapSize = length * 0.7
  }

  /** Puts a mesh into the geometries; the same buffers are only marked as changed. */
  private fill(mesh: LatheMesh, fresh: boolean): void {
    if (fresh) {
      this.surface.geometry.dispose()
      this.edges.geometry.dispose()
      this.surface.geometry = new BufferGeometry()
      this.surface.geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3))
      this.surface.geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3))
      this.surface.geometry.setIndex(new BufferAttribute(mesh.indices, 1))
      this.edges.geometry = new BufferGeometry()
      this.edges.geometry.setAttribute('position', new BufferAttribute(mesh.edges, 3))
      this.behind.geometry = this.edges.geometry
    } else {
      const { vertices, edges: edgeVertices } = mesh.written
      markWritten(this.surface.geometry, ['position', 'normal'], vertices)
      markWritten(this.edges.geometry, ['position'], edgeVertices)
    }
  }

  dispose(): void {
    if (this.caps) dropCaps(this.caps)
    for (const object of [this.surface, this.edges, this.behind, this.outline]) {
      object.geometry.dispose()
      object.material.dispose()
    }
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
