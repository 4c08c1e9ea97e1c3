import CameraControls from 'camera-controls'
import {
  Box3,
  Matrix4,
  OrthographicCamera,
  PerspectiveCamera,
  Quaternion,
  Raycaster,
  Sphere,
  Spherical,
  Vector2,
  Vector3,
  Vector4,
  type Ray,
} from 'three'
import type { Eye } from '@lathica/core/mesh'
import type { ViewName } from '../store/look'

CameraControls.install({
  THREE: {
    Vector2,
    Vector3,
    Vector4,
    Quaternion,
    Matrix4,
    Spherical,
    Box3,
    Sphere,
    Raycaster,
  },
})

type Lie = 'lying' | 'standing'

/** Azimuth and polar angle in radians: round the upright, and down from straight above. */
type Direction = readonly [azimuth: number, polar: number]

const LEVEL = Math.PI / 2
/** Straight above and below, but for what keeps the upright upright. */
const POLE = 1e-4

/** From the front, a little from the right and above: from where one looks at first. */
const THREE_QUARTER: Direction = [0.55, 1.22]

/** Standard views. A lying part's ends are right and left, a standing one's above and below. */
const DIRECTIONS: Readonly<Record<Lie, Readonly<Record<ViewName, Direction>>>> = {
  lying: {
    front: [0, LEVEL],
    end: [LEVEL, LEVEL],
    otherEnd: [-LEVEL, LEVEL],
    top: [0, POLE],
    threeQuarter: THREE_QUARTER,
    otherThreeQuarter: [-0.55, 1.22],
  },
  standing: {
    front: [0, LEVEL],
    end: [0, POLE],
    otherEnd: [0, Math.PI - POLE],
    top: [LEVEL, LEVEL],
    threeQuarter: THREE_QUARTER,
    otherThreeQuarter: [0.55, Math.PI - 1.22],
  },
}

/** The vertical angle of the perspective, in degrees: that of a long lens. */
const FIELD = 26

/** Any distance will do for parallel rays; near and far planes lie well beyond it, in mm. */
const VIEWING_DISTANCE = 1000

/** The share of the pane that a fitted part fills. */
const FILL = 0.88

/** A view that is held leaves so much room to grow into, and is left alone until there is so much more. */
const ROOM = 0.7
const MOST_ROOM = 4

export interface Cameras {
  readonly controls: CameraControls
  readonly current: () => OrthographicCamera | PerspectiveCamera
  setPerspective(on: boolean): void
  /** @param framing true for a picture of the same view, false for a pane that shows more or less */
  resize(width: number, height: number, framing: boolean): void
  /** Brings a box into view from a standard direction. */
  fit(box: Box3, view: ViewName, lie: Lie, smooth: boolean): void
  /** Keeps a box in view from where one looks: nearer or farther only where it has outgrown the view, or is lost in it. */
  hold(box: Box3): void
  /** Looks against a direction of space, keeping what is in the middle. */
  square(normal: Vector3): void
  /** Comes nearer by a factor, or goes away by one below 1. */
  approach(factor: number): void
  /** The way one looks at a place of the pane, in the room. */
  rayUnder(x: number, y: number): Ray
  /** Where one looks from, in the space of what stands so in the room. */
  eyeIn(stands: Matrix4): Eye
  /** The size of a pixel at the middle of what is looked at, in mm. */
  perPixel(): number
}

/** Parallel and perspective views of one thing, steered alike. */
export function createCameras(canvas: HTMLCanvasElement): Cameras {
  const parallel = new OrthographicCamera(-1, 1, 1, -1, -1e5, 1e5)
  const lens = new PerspectiveCamera(FIELD, 1, 0.1, 1e5)
  let camera: OrthographicCamera | PerspectiveCamera = parallel
  let height = 1
  let width = 1
  const controls = new CameraControls(camera, canvas)
  void controls.setLookAt(0, 0, VIEWING_DISTANCE, 0, 0, 0)
  controls.draggingSmoothTime = 0.04
  // Views that are asked for are flown to, but for who asks for less motion.
  const isStill = matchMedia('(prefers-reduced-motion: reduce)').matches
  controls.smoothTime = isStill ? 0 : 0.12
  controls.dollyToCursor = true
  controls.minZoom = 1e-4
  controls.maxZoom = 1e4
  controls.minDistance = 1e-2
  controls.maxDistance = 1e5

  /** How far away the lens sees as much as a parallel view of a zoom. */
  const distanceFor = (zoom: number): number =>
    height / zoom / (2 * Math.tan((FIELD * Math.PI) / 360))
  const zoomFor = (distance: number): number =>
    height / (2 * distance * Math.tan((FIELD * Math.PI) / 360))

  /** Sets how much is seen, in pixels per mm. */
  const setScale = (scale: number, smooth: boolean): void => {
    if (camera === parallel) void controls.zoomTo(scale, smooth)
    else void controls.dollyTo(distanceFor(scale), smooth)
  }
  const scaleNow = (): number => (camera === parallel ? parallel.zoom : zoomFor(controls.distance))

  return {
    controls,
    current: () => camera,
    setPerspective(on) {
      const wanted = on ? lens : parallel
      if (wanted === camera) return
      const scale = scaleNow()
      camera = wanted
      controls.camera = wanted
      if (on) void controls.dollyTo(distanceFor(scale), false)
      else {
        void controls.dollyTo(VIEWING_DISTANCE, false)
        void controls.zoomTo(scale, false)
      }
    },
    resize(w, h, framing) {
      // A larger pane shows more of the part, not the part larger: so the lens steps back.
      if (camera instanceof PerspectiveCamera && !framing)
        void controls.dollyTo((controls.distance * h) / height, false)
      width = w
      height = h
      parallel.left = -w / 2
      parallel.right = w / 2
      parallel.top = h / 2
      parallel.bottom = -h / 2
      parallel.updateProjectionMatrix()
      lens.aspect = w / h
      lens.updateProjectionMatrix()
    },
    fit(box, view, lie, smooth) {
      if (box.isEmpty()) return
      const [azimuth, polar] = DIRECTIONS[lie][view]
      const middle = box.getCenter(new Vector3())
      const { across, upright } = extentFrom(box, azimuth, polar)
      const scale =
        FILL * Math.min(width / Math.max(across, 1e-6), height / Math.max(upright, 1e-6))
      void controls.rotateTo(azimuth, polar, smooth)
      void controls.moveTo(middle.x, middle.y, middle.z, smooth)
      void controls.setFocalOffset(0, 0, 0, smooth)
      setScale(scale, smooth)
    },
    hold(box) {
      if (box.isEmpty()) return
      const { across, upright } = extentFrom(box, controls.azimuthAngle, controls.polarAngle)
      const fitting =
        FILL * Math.min(width / Math.max(across, 1e-6), height / Math.max(upright, 1e-6))
      const now = scaleNow()
      const seen = controls.getTarget(new Vector3())
      const middle = box.getCenter(new Vector3())
      const off = middle.distanceTo(seen) * now
      if (now <= fitting / FILL && now >= fitting / MOST_ROOM && off < width / 8) return
      void controls.moveTo(middle.x, middle.y, middle.z, true)
      setScale(fitting * ROOM, true)
    },
    square(normal) {
      const direction = new Spherical().setFromVector3(normal)
      const polar = Math.min(Math.PI - POLE, Math.max(POLE, direction.phi))
      // From straight above or below the upright stays as it is.
      const steep = direction.phi < 0.01 || direction.phi > Math.PI - 0.01
      void controls.rotateTo(steep ? 0 : direction.theta, polar, true)
    },
    approach: (factor) => setScale(scaleNow() * factor, true),
    eyeIn(stands) {
      const inverse = stands.clone().invert()
      if (camera instanceof PerspectiveCamera) {
        const { x, y, z } = camera.position.clone().applyMatrix4(inverse)
        return { at: { x, y, z } }
      }
      const { x, y, z } = camera.getWorldDirection(new Vector3()).transformDirection(inverse)
      return { along: { x, y, z } }
    },
    rayUnder(x, y) {
      const caster = new Raycaster()
      camera.updateMatrixWorld()
      caster.setFromCamera(new Vector2((2 * x) / width - 1, 1 - (2 * y) / height), camera)
      return caster.ray.clone()
    },
    perPixel: () => 1 / scaleNow(),
  }
}

/** How wide and how high a box is seen from a direction. */
function extentFrom(
  box: Box3,
  azimuth: number,
  polar: number,
): { readonly across: number; readonly upright: number } {
  const size = box.getSize(new Vector3())
  const across = Math.abs(size.x * Math.cos(azimuth)) + Math.abs(size.z * Math.sin(azimuth))
  const deep = Math.abs(size.x * Math.sin(azimuth)) + Math.abs(size.z * Math.cos(azimuth))
  return { across, upright: size.y * Math.abs(Math.sin(polar)) + deep * Math.abs(Math.cos(polar)) }
}
