import { inFrame, place, pointsAlong, type Frame, type Vec } from '@lathica/core/geometry'
import type { Region } from '@lathica/core/section'
import {
  DoubleSide,
  Group,
  Mesh,
  MeshBasicMaterial,
  Path,
  Plane,
  Shape,
  ShapeGeometry,
  Vector2,
  Vector3,
  type Ray,
} from 'three'
import type { ShownArea } from '../board/useAskedAreas'

/** How far a chord may lie off a curve, in mm. */
const CHORD = 0.05

/** The areas of a profile as flat faces where it stands, seen through the part. */
export class AreaFaces {
  readonly group = new Group()

  show(areas: readonly ShownArea[], frame: Frame | undefined, colour: string): void {
    this.dispose()
    if (!frame) return
    for (const { region, chosen, hover } of areas) {
      const material = new MeshBasicMaterial({
        color: colour,
        side: DoubleSide,
        transparent: true,
        opacity: (chosen ? 0.55 : 0.12) + (hover ? 0.25 : 0),
        depthTest: false,
      })
      const face = new Mesh(faceIn(region, frame), material)
      face.renderOrder = 4
      this.group.add(face)
    }
  }

  dispose(): void {
    for (const face of this.group.children) {
      if (!(face instanceof Mesh)) continue
      face.geometry.dispose()
      ;(face.material as MeshBasicMaterial).dispose()
    }
    this.group.clear()
  }
}

function faceIn({ outer, holes }: Region, frame: Frame): ShapeGeometry {
  const around = (loop: Region['outer']): Vector2[] =>
    loop.flatMap(({ piece }) =>
      pointsAlong(piece, CHORD)
        .slice(0, -1)
        .map((p) => new Vector2(p.x, p.y)),
    )
  const shape = new Shape(around(outer))
  shape.holes = holes.map((hole) => new Path(around(hole)))
  const geometry = new ShapeGeometry(shape)
  const at = geometry.getAttribute('position')
  for (let i = 0; i < at.count; i++) {
    const { x, y, z } = inFrame(frame, place(at.getX(i), at.getY(i), 0))
    at.setXYZ(i, x, y, z)
  }
  return geometry
}

/** Where a ray meets the plane of a frame, in its own two directions. @param ray in the model's space */
export function placeOnFrame(ray: Ray, frame: Frame): Vec | undefined {
  const vector = ({ x, y, z }: Frame['at']): Vector3 => new Vector3(x, y, z)
  const [at, x, z] = [vector(frame.at), vector(frame.x), vector(frame.z)]
  const met = ray.intersectPlane(new Plane().setFromNormalAndCoplanarPoint(z, at), new Vector3())
  const off = met?.sub(at)
  return off && { x: off.dot(x), y: off.dot(new Vector3().crossVectors(z, x)) }
}
