import { place, secondOf, type Frame, type Place, type Vec } from '@lathica/core/geometry'
import { halfPlane, outwards } from '@lathica/core/solid'
import {
  meshOutline,
  meshBends,
  sliceMesh,
  type Eye,
  type MeshBends,
  type SolidMesh,
} from '@lathica/core/mesh'
import {
  Box3,
  BufferAttribute,
  BufferGeometry,
  type Group,
  Matrix4,
  Path,
  Shape,
  ShapeGeometry,
  Vector2,
  Vector3,
  type Ray,
} from 'three'
import { MeshBVH } from 'three-mesh-bvh'
import { cappedGroup, isCutAway, type CapTones, type CutSpec } from './cutting'
import { DrawnBody, type DrawnFace, type Manner, type ShownBody } from './drawnBody'

/** A body as the kernel built it. */
export class LiftedBody extends DrawnBody {
  private bends: MeshBends
  private tree: MeshBVH | undefined

  constructor(private mesh: SolidMesh) {
    super()
    this.bends = mesh.bends ?? meshBends(mesh)
    this.fill(mesh)
  }

  bounds(): Box3 {
    const { geometry } = this.surface
    if (!geometry.boundingBox) geometry.computeBoundingBox()
    return geometry.boundingBox?.clone() ?? new Box3()
  }

  get triangles(): number {
    return this.mesh.indices.length / 3
  }

  show(body: ShownBody, manner: Manner, number: number): void {
    const changed = body.mesh !== undefined && body.mesh !== this.mesh
    if (body.mesh && changed) {
      this.mesh = body.mesh
      this.bends = body.mesh.bends ?? meshBends(body.mesh)
      this.tree = undefined
      this.fill(body.mesh)
    }
    this.dress(body, manner)
    this.showSaid(body, this.mesh, manner)
    this.cap(manner, number % 2 === 1, changed)
  }

  protected facesDrawn(): readonly DrawnFace[] {
    return this.mesh.faces
  }

  setRough(rough: boolean): void {
    this.edges.visible = this.outline.visible && !rough
  }

  lookFrom(eye: Eye): void {
    if (this.outline.visible) this.drawOutline(meshOutline(this.bends, eye))
  }

  protected capsFor(cut: CutSpec, pitch: number, leansBack: boolean, tones: CapTones): Group {
    const faces = framesOf(cut).map(({ frame, half }, i) => {
      const loops = sliceMesh(this.mesh, frame).map((l) => (half ? clipped(l) : l))
      // On the far side the hatch runs on across the axis.
      return { face: faceOf(loops, half && i === 1), rim: rimOf(loops), place: matrixOf(frame) }
    })
    return cappedGroup(faces, pitch, leansBack, tones)
  }

  /** The nearest place of the surface that a ray meets and that is not cut away. */
  hit(ray: Ray, cut: CutSpec | undefined): SolidHit | undefined {
    this.tree ??= new MeshBVH(geometryOf(this.mesh), { indirect: true })
    const hits = this.tree.raycast(ray, 2).sort((a, b) => a.distance - b.distance)
    for (const { point, distance, faceIndex } of hits) {
      const angle = Math.atan2(point.y, point.x)
      const radius = Math.hypot(point.x, point.y)
      if (cut && isCutAway(cut, angle, point.z, radius)) continue
      const index = 3 * (faceIndex ?? 0)
      const face = this.mesh.faces.find((f) => index >= f.start && index < f.start + f.count)
      return {
        ...{ t: distance, at: { x: point.z, y: radius }, angle, face: face?.name ?? '' },
        ...{ place: place(point.x, point.y, point.z), mesh: this.mesh },
      }
    }
    return undefined
  }
}

/** A place on a solid: where it is about the axis, and the face it is on. */
export interface SolidHit {
  readonly t: number
  readonly at: Vec
  readonly angle: number
  readonly face: string
  readonly place: Place
  readonly mesh: SolidMesh
}

function geometryOf({ positions, indices }: SolidMesh): BufferGeometry {
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(positions, 3))
  // The tree stands beside the triangles, which keep the order of the faces.
  geometry.setIndex(new BufferAttribute(indices, 1))
  geometry.boundingBox = new Box3()
  return geometry
}

/** The planes of a cut; of a wedge each is a half only. */
function framesOf(spec: CutSpec): { readonly frame: Frame; readonly half: boolean }[] {
  if (spec.kind === 'across') {
    return [
      {
        frame: { at: place(0, 0, spec.at), x: place(1, 0, 0), z: place(0, 0, 1) },
        half: false,
      },
    ]
  }
  if (spec.kind === 'wedge') {
    return [spec.from, spec.to].map((angle) => ({ frame: halfPlane(angle), half: true }))
  }
  const out = outwards(spec.angle)
  const stretch = Math.hypot(1, spec.slope)
  const x = place((out.x * spec.slope) / stretch, (out.y * spec.slope) / stretch, 1 / stretch)
  const across = new Vector3(x.x, x.y, x.z).cross(new Vector3(-out.y, out.x, 0))
  const { x: zx, y: zy, z: zz } = across.normalize()
  return [
    {
      frame: { at: place(out.x * spec.at, out.y * spec.at, 0), x, z: place(zx, zy, zz) },
      half: false,
    },
  ]
}

function matrixOf(frame: Frame): Matrix4 {
  const vector = ({ x, y, z }: { x: number; y: number; z: number }): Vector3 => new Vector3(x, y, z)
  return new Matrix4()
    .makeBasis(vector(frame.x), vector(secondOf(frame)), vector(frame.z))
    .setPosition(vector(frame.at))
}

/** What of a loop lies on the upper side; below, it runs along the axis. */
function clipped(loop: readonly Vec[]): Vec[] {
  return loop.flatMap((p, i) => {
    const q = loop[(i + 1) % loop.length] ?? p
    const kept = { x: p.x, y: Math.max(0, p.y) }
    if (p.y > 0 === q.y > 0) return [kept]
    const t = p.y / (p.y - q.y)
    return [kept, { x: p.x + (q.x - p.x) * t, y: 0 }]
  })
}

const areaOf = (loop: readonly Vec[]): number =>
  loop.reduce((sum, p, i) => {
    const q = loop[(i + 1) % loop.length] ?? p
    return sum + (p.x * q.y - q.x * p.y) / 2
  }, 0)

const points = (loop: readonly Vec[]): Vector2[] => loop.map(({ x, y }) => new Vector2(x, y))

function faceOf(loops: readonly (readonly Vec[])[], turned: boolean): ShapeGeometry {
  const sized = loops.map((loop) => ({ loop, area: areaOf(loop) }))
  const outer = sized.filter((l) => l.area > 1e-9)
  const shapes = outer.map((l) => new Shape(points(l.loop)))
  for (const { loop, area } of sized) {
    const [first] = loop
    if (area >= -1e-9 || !first) continue
    // A hollow belongs to the smallest outline around it.
    const around = outer
      .map((o, i) => ({ ...o, i }))
      .filter((o) => contains(o.loop, first))
      .sort((a, b) => a.area - b.area)[0]
    if (around) shapes[around.i]?.holes.push(new Path(points(loop)))
  }
  const face = new ShapeGeometry(shapes)
  const uv = face.getAttribute('uv')
  if (turned) for (let i = 0; i < uv.count; i++) uv.setY(i, -uv.getY(i))
  return face
}

function contains(loop: readonly Vec[], { x, y }: Vec): boolean {
  let inside = false
  loop.forEach((p, i) => {
    const q = loop[(i + 1) % loop.length] ?? p
    if (p.y > y !== q.y > y && x < p.x + ((q.x - p.x) * (y - p.y)) / (q.y - p.y)) inside = !inside
  })
  return inside
}

function rimOf(loops: readonly (readonly Vec[])[]): BufferGeometry {
  const places = loops.flatMap((loop) =>
    loop.flatMap((p, i) => {
      const q = loop[(i + 1) % loop.length] ?? p
      // What lies along the axis is no edge of the part.
      return p.y === 0 && q.y === 0 ? [] : [p.x, p.y, 0, q.x, q.y, 0]
    }),
  )
  return new BufferGeometry().setAttribute(
    'position',
    new BufferAttribute(new Float32Array(places), 3),
  )
}
