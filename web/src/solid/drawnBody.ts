import type { Section } from '@lathica/core/section'
import type { Look } from '@lathica/core/part'
import type { Eye, SolidMesh } from '@lathica/core/mesh'
import {
  type Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
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
import { dropCaps, type CapTones, type CutSpec } from './cutting'
import { EDGE_STRENGTH, surfaceOf, type Tones } from './looks'
import { SaidLines, type SaidFace } from './saidLines'

/** A body as the solid pane shows it. */
export interface ShownBody {
  readonly id: string
  /** The half-section; of a body that is no full turn, of what it would be as one. */
  readonly section: Section
  /** What the kernel built of a body that is no full turn. */
  readonly mesh: SolidMesh | undefined
  readonly colour: string
  readonly look: Look
  /** Seen through, whatever the display. */
  readonly glassy: boolean
  /** Faces that are coloured, threaded or knurled. */
  readonly said: readonly SaidFace[]
}

/** A face of what is drawn: its name, and where its triangles are in the indices. */
export interface DrawnFace {
  readonly name: string
  readonly start: number
  readonly count: number
}

const NOTHING_SAID: readonly SaidFace[] = []

/** The tone of threaded and knurled faces, and how much of it there is. */
const TONE = '#4f5c66'
const TONED = 0.3

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

/** A body's objects in the scene, drawn in a manner; what they show is filled in by its kinds. */
export abstract class DrawnBody {
  readonly group = new Group()
  protected readonly surface = new Mesh(new BufferGeometry(), [
    new MeshBasicMaterial(),
  ] as Material[])
  protected readonly edges = new LineSegments(new BufferGeometry(), new LineBasicMaterial())
  /** The same edges where something stands before them, in dashes. */
  protected readonly behind = new LineSegments(this.edges.geometry, new LineDashedMaterial())
  protected readonly outline = new LineSegments(new BufferGeometry(), this.edges.material)
  protected caps: Group | undefined
  /** Threads and knurls. */
  private readonly said = new SaidLines()
  private drawn = ''
  /** Names of faces that have a material of their own, in the order of the materials. */
  private tinted: readonly string[] = []
  private capped = ''

  constructor() {
    this.behind.material.depthFunc = GreaterDepth
    this.behind.material.depthWrite = false
    // Bounds are not kept up to date while sizes change, so nothing is culled by them.
    for (const object of [this.surface, this.edges, this.behind, this.outline]) {
      object.frustumCulled = false
      this.group.add(object)
    }
    this.group.add(this.said.object)
  }

  abstract get triangles(): number

  /** What it reaches to in the space of the part; nothing is drawn for it. */
  abstract bounds(): Box3

  /** Takes another shape, and draws it in a manner. */
  abstract show(body: ShownBody, manner: Manner, number: number): void

  /** Shows few triangles while many would hold up the hand, or all of them again. */
  abstract setRough(rough: boolean): void

  /** Draws the outline as it is seen from an eye in the model's space. */
  abstract lookFrom(eye: Eye): void

  /** The faces of what is drawn just now. */
  protected abstract facesDrawn(): readonly DrawnFace[]

  /** The faces where a cut opens the body. */
  protected abstract capsFor(
    cut: CutSpec,
    pitch: number,
    leansBack: boolean,
    tones: CapTones,
  ): Group

  protected dress({ look, colour, glassy, said }: ShownBody, manner: Manner): void {
    const { display, tones, planes } = manner
    const shows = !glassy && (display === 'shaded' || display === 'edged' || display === 'studio')
    const own = shows ? said.map((f) => [f.on, f.colour?.of ?? '', f.colour?.finish ?? '']) : []
    const key = [display, look, colour, glassy, JSON.stringify([tones, own]), planes.length].join()
    if (key !== this.drawn) {
      this.drawn = key
      for (const old of this.surface.material) old.dispose()
      const material = surfaceOf(display, look, colour, glassy, tones)
      this.surface.visible = material !== undefined
      const toned = `#${new Color(colour).lerp(new Color(TONE), TONED).getHexString()}`
      const tints = (shows ? said : []).flatMap((face) => {
        const finish = face.colour && (face.colour.finish === 'polished' ? 'metal' : 'plastic')
        return surfaceOf(display, finish ?? look, face.colour?.of ?? toned, false, tones) ?? []
      })
      this.surface.material = [material ?? new MeshBasicMaterial(), ...tints]
      this.tinted = tints.length > 0 ? said.map((f) => f.on) : []
      this.regroup()
      this.surface.castShadow = display === 'studio' && !glassy
      this.surface.receiveShadow = display === 'studio'
      // What is seen through is drawn after what stands behind it.
      this.surface.renderOrder = this.surface.material[0]?.transparent === true ? 2 : 0
      const strength = EDGE_STRENGTH[display]
      this.edges.visible = this.outline.visible = strength > 0
      Object.assign(this.edges.material, { transparent: strength < 1, opacity: strength })
      this.edges.material.color.set(tones.edge)
      this.behind.visible = display === 'hidden'
      Object.assign(this.behind.material, { transparent: true, opacity: 0.45 })
      this.behind.material.color.set(tones.edge)
      this.edges.renderOrder = this.outline.renderOrder = 1
    }
    for (const material of [...this.surface.material, this.edges.material, this.behind.material]) {
      material.clippingPlanes = planes as Plane[]
      // Only what lies behind all planes goes: a wedge, not all but a quarter.
      material.clipIntersection = true
    }
  }

  /** Shows threads and knurls, on the section of a full turn or on the triangles of what is none. */
  protected showSaid(body: ShownBody, on: Section | SolidMesh, manner: Manner): void {
    const bare = manner.display === 'stripes' || manner.display === 'hidden' || body.glassy
    this.said.show(bare ? NOTHING_SAID : body.said, on, manner)
  }

  protected cap(manner: Manner, leaning: boolean, changed: boolean): void {
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
    this.caps = this.capsFor(cut, pitch, leaning, { face, line, edge: tones.edge })
    this.group.add(this.caps)
  }

  /** Dashes of hidden edges are as long as this, in mm. */
  dash(length: number): void {
    if (!this.behind.visible) return
    this.behind.computeLineDistances()
    this.behind.material.dashSize = length
    this.behind.material.gapSize = length * 0.7
  }

  /** Puts fresh buffers into the geometries. */
  protected fill(mesh: Pick<SolidMesh, 'positions' | 'normals' | 'indices' | 'edges'>): void {
    this.surface.geometry.dispose()
    this.edges.geometry.dispose()
    this.surface.geometry = new BufferGeometry()
    this.surface.geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3))
    this.surface.geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3))
    this.surface.geometry.setIndex(new BufferAttribute(mesh.indices, 1))
    this.edges.geometry = new BufferGeometry()
    this.edges.geometry.setAttribute('position', new BufferAttribute(mesh.edges, 3))
    this.behind.geometry = this.edges.geometry
    this.regroup()
  }

  /** Gives each run of triangles its material: that of the body, or of a face with its own. */
  private regroup(): void {
    const { geometry } = this.surface
    geometry.clearGroups()
    const all = geometry.index?.count ?? 0
    let done = 0
    const runs = this.tinted.length === 0 ? [] : this.facesDrawn()
    for (const { name, start, count } of [...runs].sort((a, b) => a.start - b.start)) {
      // What is said last of a face is what it shows.
      const at = this.tinted.lastIndexOf(name)
      if (at < 0) continue
      if (start > done) geometry.addGroup(done, start - done, 0)
      geometry.addGroup(start, count, at + 1)
      done = start + count
    }
    if (all > done) geometry.addGroup(done, all - done, 0)
  }

  /** Puts the outline's lines in, into the same buffer where it has the same length. */
  protected drawOutline(places: Float32Array): void {
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

  dispose(): void {
    if (this.caps) dropCaps(this.caps)
    this.said.dispose()
    for (const material of this.surface.material) material.dispose()
    this.surface.geometry.dispose()
    for (const object of [this.edges, this.behind, this.outline]) {
      object.geometry.dispose()
      object.material.dispose()
    }
  }
}
