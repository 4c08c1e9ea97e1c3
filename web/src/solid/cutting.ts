import { pointAt, pointsAlong, type Piece, type Vec } from '@lathica/core/geometry'
import { liesOnAxis, type Section } from '@lathica/core/section'
import { ringsAt } from '@lathica/core/inspect'
import {
  BufferAttribute,
  BufferGeometry,
  CanvasTexture,
  DoubleSide,
  Group,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  Path,
  Plane,
  RepeatWrapping,
  SRGBColorSpace,
  Shape,
  ShapeGeometry,
  Vector2,
  Vector3,
} from 'three'
import type { Cut } from '../store/look'

/**
 * What is cut away: a wedge about the axis, all beyond a place along it, or all further out towards an
 * angle than a plane beside the axis, which may come nearer to it along the axis by a slope.
 */
export type CutSpec =
  | { readonly kind: 'wedge'; readonly from: number; readonly to: number }
  | { readonly kind: 'across'; readonly at: number }
  | ({ readonly kind: 'beside' } & Beside)

/** A plane beside the axis: out towards an angle it stands at `at + slope · x`, in mm. */
interface Beside {
  readonly angle: number
  readonly at: number
  readonly slope: number
}

/** The angle round the axis of the side that is seen from the front. */
export const frontOf = (lie: 'lying' | 'standing'): number =>
  lie === 'lying' ? Math.PI / 2 : -Math.PI / 2

/**
 * The wedge or place of a cut. What lies towards the viewer goes: a lying part is seen from the side
 * of its model’s y, a standing one from that of its −y.
 * @param at where a cut meets the axis, or its distance beside it towards the viewer, in mm
 * @param tilt of a cut aslant, from the axis, in radians; less than a right angle
 */
export function cutSpec(
  cut: Cut,
  lie: 'lying' | 'standing',
  at: number,
  tilt = Math.PI / 4,
): CutSpec {
  const front = frontOf(lie)
  switch (cut) {
    case 'half':
      return { kind: 'wedge', from: front - Math.PI / 2, to: front + Math.PI / 2 }
    case 'quarter':
      return lie === 'lying'
        ? { kind: 'wedge', from: front - Math.PI / 2, to: front }
        : { kind: 'wedge', from: front, to: front + Math.PI / 2 }
    case 'across':
      return { kind: 'across', at }
    case 'beside':
      return { kind: 'beside', angle: front, at, slope: 0 }
    case 'aslant':
      return { kind: 'beside', angle: front, at: at * Math.tan(tilt), slope: -Math.tan(tilt) }
  }
}

/** Whether a place of the model is cut away, told by its angle, its place along the axis and radius. */
export function isCutAway(spec: CutSpec, angle: number, axial: number, radius: number): boolean {
  if (spec.kind === 'across') return axial > spec.at
  if (spec.kind === 'beside') {
    return radius * Math.cos(angle - spec.angle) > spec.at + spec.slope * axial
  }
  const turn = 2 * Math.PI
  const from = (((angle - spec.from) % turn) + turn) % turn
  return from < spec.to - spec.from
}

/** Planes in the model’s space; what lies behind all of them is cut away. */
export function planesOf(spec: CutSpec): Plane[] {
  if (spec.kind === 'across') return [new Plane(new Vector3(0, 0, -1), spec.at)]
  const normal = (angle: number): Vector3 => new Vector3(Math.cos(angle), Math.sin(angle), 0)
  if (spec.kind === 'beside') {
    const inwards = normal(spec.angle).negate().setZ(spec.slope)
    return [new Plane(inwards, spec.at).normalize()]
  }
  const [a, b] = [normal(spec.from - Math.PI / 2), normal(spec.to + Math.PI / 2)]
  // Of a half turn both are the same plane.
  return a.distanceTo(b) < 1e-9 ? [new Plane(a, 0)] : [new Plane(a, 0), new Plane(b, 0)]
}

/** Arcs on cut faces are drawn by chords within this, in mm. */
const CHORD = 0.02

/** Lines cut beside the axis show hyperbolas and ellipses; each stretch is drawn by so many chords. */
const CONIC = 32

/** A plane as its distance from the axis goes along it. */
type Leaning = Pick<Beside, 'at' | 'slope'>

const ALONG_AXIS: Leaning = { at: 0, slope: 0 }

/**
 * Where a plane beside the axis shows the points of an edge: from the middle of the plane out to
 * √(r² − d²) for the plane's distance d there, and in the middle where the edge does not reach it.
 */
function shownPoints(piece: Piece, { at, slope }: Leaning): Vector2[] {
  const stretch = Math.hypot(1, slope)
  const points = at === 0 && slope === 0 ? pointsAlong(piece, CHORD) : conicPoints(piece, at, slope)
  return points.map(({ x, y }) => {
    const d = at + slope * x
    return new Vector2(x * stretch, Math.sqrt(Math.max(0, (y - d) * (y + d))))
  })
}

/** Points of a piece, closer where what is shown of them begins and ends. */
function conicPoints(piece: Piece, at: number, slope: number): Vec[] {
  if (piece.kind !== 'line') return pointsAlong(piece, CHORD / 4)
  const { from, to } = piece
  // y = ± d at up to two places.
  const meets = [1, -1].flatMap((side) => {
    const start = from.y - side * (at + slope * from.x)
    const end = to.y - side * (at + slope * to.x)
    const t = start / (start - end)
    return t > 0 && t < 1 ? [t] : []
  })
  const stops = [0, ...meets.sort((a, b) => a - b), 1]
  const shares = stops.slice(1).flatMap((stop, i) => {
    const start = stops[i] ?? 0
    const share = (k: number): number => (1 - Math.cos((Math.PI * k) / CONIC)) / 2
    return Array.from({ length: CONIC }, (_, k) => start + (stop - start) * share(k))
  })
  return [...shares, 1].map((t) => pointAt(piece, t))
}

/** Points of a loop from edge to edge, the last one left out. */
function outlineOf(loop: Section['regions'][number]['outer'], plane: Leaning): Vector2[] {
  return loop.flatMap(({ piece }) => shownPoints(piece, plane).slice(0, -1))
}

/**
 * Half of what a plane beside the axis cuts of a body, as flat faces.
 * @param turned true on the far side, so that the hatch runs on across the middle
 */
function faceOf(section: Section, plane: Leaning, turned: boolean): ShapeGeometry {
  const shapes = section.regions.map(({ outer, holes }) => {
    const shape = new Shape(outlineOf(outer, plane))
    shape.holes = holes.map((hole) => new Path(outlineOf(hole, plane)))
    return shape
  })
  const face = new ShapeGeometry(shapes)
  const uv = face.getAttribute('uv')
  if (turned) for (let i = 0; i < uv.count; i++) uv.setY(i, -uv.getY(i))
  return face
}

function ringsFace(section: Section, at: number): ShapeGeometry {
  const shapes = ringsAt(section, at).map(([inner, outer]) => {
    const shape = new Shape().absarc(0, 0, outer, 0, 2 * Math.PI)
    if (inner > 1e-6) shape.holes = [new Path().absarc(0, 0, inner, 0, 2 * Math.PI)]
    return shape
  })
  return new ShapeGeometry(shapes, 64)
}

/** Line segments round every loop of a section, but for the axis, which is no edge of the part. */
function rimOf(section: Section, plane: Leaning): BufferGeometry {
  const places: number[] = []
  for (const { outer, holes } of section.regions) {
    for (const edge of [outer, ...holes].flat()) {
      if (liesOnAxis(edge)) continue
      const points = shownPoints(edge.piece, plane)
      points.slice(1).forEach((q, i) => {
        const p = points[i] ?? q
        if (p.y > 0 || q.y > 0) places.push(p.x, p.y, 0, q.x, q.y, 0)
      })
    }
  }
  return new BufferGeometry().setAttribute(
    'position',
    new BufferAttribute(new Float32Array(places), 3),
  )
}

const hatches = new Map<string, CanvasTexture>()

/** One pitch of a 45° hatch on the tone of a cut face; drawn once, as cut faces change with every drag. */
function hatchTexture({ face, line }: CapTones, leaning: boolean): CanvasTexture {
  const key = `${face} ${line} ${leaning}`
  const known = hatches.get(key)
  if (known) return known
  const side = 64
  const tile = document.createElement('canvas')
  tile.width = tile.height = side
  const brush = tile.getContext('2d')
  if (brush) {
    brush.fillStyle = face
    brush.fillRect(0, 0, side, side)
    brush.strokeStyle = line
    brush.lineWidth = 6
    for (const shift of [-side, 0, side]) {
      brush.moveTo(shift - side, leaning ? -side : 2 * side)
      brush.lineTo(shift + 2 * side, leaning ? 2 * side : -side)
    }
    brush.stroke()
  }
  const texture = new CanvasTexture(tile)
  texture.wrapS = texture.wrapT = RepeatWrapping
  texture.colorSpace = SRGBColorSpace
  texture.anisotropy = 4
  hatches.set(key, texture)
  return texture
}

export interface CapTones {
  readonly face: string
  readonly line: string
  readonly edge: string
}

/** Places the plane of a half-section into the model: x along the axis, y out at an angle. */
function standing(angle: number): Matrix4 {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  return new Matrix4().makeBasis(new Vector3(0, 0, 1), new Vector3(c, s, 0), new Vector3(-s, c, 0))
}

/** Places a plane beside the axis: x along its slope, y to one side of its middle. */
function leaning({ angle, at, slope }: Beside, side: 1 | -1): Matrix4 {
  const out = new Vector3(Math.cos(angle), Math.sin(angle), 0)
  const along = new Vector3(0, 0, 1).addScaledVector(out, slope).normalize()
  const aside = new Vector3(-out.y, out.x, 0).multiplyScalar(side)
  const place = new Matrix4().makeBasis(along, aside, along.clone().cross(aside))
  return place.setPosition(out.multiplyScalar(at))
}

/** A cut face in its own plane, its rim as pairs of places, and where the plane stands. */
interface CapFace {
  readonly face: BufferGeometry
  readonly rim: BufferGeometry | undefined
  readonly place: Matrix4
}

/**
 * Cut faces, hatched.
 * @param pitch of the hatch, in mm
 */
export function cappedGroup(
  faces: readonly CapFace[],
  pitch: number,
  leansBack: boolean,
  tones: CapTones,
): Group {
  const group = new Group()
  const map = hatchTexture(tones, leansBack)
  map.repeat.set(1 / pitch, 1 / pitch)
  const material = new MeshBasicMaterial({ map, side: DoubleSide })
  const lines = new LineBasicMaterial({ color: tones.edge })
  for (const { face, rim, place } of faces) {
    const mesh = new Mesh(face, material)
    for (const item of rim ? [mesh, new LineSegments(rim, lines)] : [mesh]) {
      item.matrixAutoUpdate = false
      item.matrix.copy(place)
      item.frustumCulled = false
      group.add(item)
    }
  }
  return group
}

/**
 * The cut faces of a turned body: its half-section at both sides of a wedge or of a plane beside the
 * axis, or the rings of a place along it. They are the exact section, not what triangles leave open.
 */
export function capsOf(
  section: Section,
  spec: CutSpec,
  pitch: number,
  leansBack: boolean,
  tones: CapTones,
): Group {
  const faces = (): CapFace[] => {
    if (spec.kind === 'across') {
      const place = new Matrix4().makeTranslation(0, 0, spec.at)
      return [{ face: ringsFace(section, spec.at), rim: undefined, place }]
    }
    const halves: readonly (readonly [Leaning, Matrix4])[] =
      spec.kind === 'wedge'
        ? [spec.from, spec.to].map((angle) => [ALONG_AXIS, standing(angle)])
        : [
            [spec, leaning(spec, -1)],
            [spec, leaning(spec, 1)],
          ]
    return halves.map(([plane, place], i) => ({
      face: faceOf(section, plane, i === 1),
      rim: rimOf(section, plane),
      place,
    }))
  }
  return cappedGroup(faces(), pitch, leansBack, tones)
}

/** Lets go of what a group of caps holds on the graphics card. */
export function dropCaps(group: Group): void {
  for (const item of group.children) {
    if (!(item instanceof Mesh) && !(item instanceof LineSegments)) continue
    const { geometry, material } = item as Mesh<BufferGeometry, MeshBasicMaterial>
    geometry.dispose()
    material.dispose()
  }
}
