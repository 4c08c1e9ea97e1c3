import type { Frame, Place, Vec } from '@lathica/core/geometry'
import type { ThreadCircle } from '@lathica/core/route'
import {
  Box3,
  Group,
  Matrix4,
  PCFShadowMap,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
  type Ray,
} from 'three'
import type { Display, ViewName } from '../store/look'
import type { DrawnBody, Manner, ShownBody } from './drawnBody'
import { LiftedBody } from './liftedBody'
import { TurnedBody, chordFor } from './turnedBody'
import { createCameras } from './cameras'
import { planesOf, type CutSpec } from './cutting'
import type { ShownArea } from '../board/useAskedAreas'
import { AreaFaces, placeOnFrame } from './areaFaces'
import { GLOW, Glow, type Lit } from './glow'
import { createLights } from './lights'
import type { Tones } from './looks'
import { nearestHit, type Hit } from './picking'
import { createPacing } from './pacing'
import { pictureOf } from './pictureOf'
import { createStudio } from './studio'
import { ThreadRings } from './threadRings'

export type { ShownBody } from './drawnBody'

/** How the scene is drawn, apart from what is in it. */
export interface Setting {
  readonly display: Display
  readonly cut: CutSpec | undefined
  readonly perspective: boolean
  readonly tones: Tones
}

interface Listener {
  /** Told whether the graphics were lost, and that they came back. */
  onLost(lost: boolean): void
  /** A picture is on its way. */
  onAsked(): void
  /** There is another picture, and it is at rest or not. */
  onPicture(isStill: boolean): void
}

export interface SolidScene {
  /** @param changing true while the bodies change with every move of the pointer */
  show(bodies: readonly ShownBody[], changing: boolean): void
  set(setting: Setting): void
  setLie(lie: 'lying' | 'standing'): void
  resize(width: number, height: number): void
  /** Brings the whole part into view. */
  fit(view: ViewName, smooth: boolean): void
  /** Keeps the whole of what grows in view, from where one looks. */
  hold(): void
  /** Turns by angles in radians, or comes nearer by a factor. */
  turn(azimuth: number, polar: number): void
  approach(factor: number): void
  /** Turns so that a place of the surface is seen square on. */
  square(angle: number, normal: Vec): void
  /** Turns the part about its axis for as long as it is on. */
  spin(on: boolean): void
  /** What lies under a place of the pane, and how large a pixel is there in mm. */
  hitAt(x: number, y: number): (Hit & { readonly perPixel: number }) | undefined
  /** Where the pointer is on the plane of a frame, in its own directions. */
  placeOn(frame: Frame, x: number, y: number): Vec | undefined
  /** Shows areas of a profile to choose from; none when there is no frame. */
  setAreas(areas: readonly ShownArea[], frame: Frame | undefined): void
  /** Where a place of the part is seen on the pane. */
  project(at: Place): { readonly x: number; readonly y: number }
  /** Draws threads as the circles that stand for them. */
  setThreads(threads: readonly ThreadCircle[]): void
  /** Lights faces and circular edges. */
  light(items: readonly Lit[]): void
  /** A picture of the view, of so many pixels. */
  picture(width: number, height: number, background: string | undefined): Promise<Blob>
  readonly triangles: () => number
  /** From where one looks: round the upright and down from above, in radians. */
  readonly eye: () => { readonly azimuth: number; readonly polar: number }
  dispose(): void
}

/** A picture that holds up the page for longer than this, in ms, is drawn less often than asked for. */
const SLOW_PICTURE = 25
/** How a lying part stands in the room: its x upwards, its y to the viewer, its axis to the right. */
const LYING = new Matrix4().makeBasis(
  new Vector3(0, 1, 0),
  new Vector3(0, 0, 1),
  new Vector3(1, 0, 0),
)
/** Turns of the part per second while it spins. */
const SPIN = 0.12

/**
 * The part in space. It renders only when something changed, never in an idle loop.
 * @throws when the browser offers no WebGL
 */
export function createSolidScene(
  canvas: HTMLCanvasElement,
  { onLost, onAsked, onPicture }: Listener,
): SolidScene {
  const renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true })
  renderer.setPixelRatio(Math.min(2, window.devicePixelRatio || 1))
  renderer.localClippingEnabled = true
  renderer.shadowMap.type = PCFShadowMap
  const scene = new Scene()
  // The model stands as the part lies; what spins within it turns about the axis.
  const model = new Group()
  const turning = new Group()
  model.add(turning)
  const cameras = createCameras(canvas)
  const { controls } = cameras
  const lights = createLights()
  scene.add(model, lights.group)
  const studio = createStudio(renderer)
  const glow = new Glow()
  const threads = new ThreadRings()
  const areaFaces = new AreaFaces()
  turning.add(glow.lines, glow.rims, threads.lines, areaFaces.group)

  const bodies = new Map<string, DrawnBody>()
  let shown: readonly ShownBody[] = []
  let isBuilt = true
  let lie: 'lying' | 'standing' = 'lying'
  let setting: Setting = {
    display: 'edged',
    cut: undefined,
    perspective: false,
    tones: { edge: '#1e2a32', paper: '#ede9dd', dark: false },
  }
  let planes = planesOf({ kind: 'across', at: 0 }).slice(1)
  let frame = 0
  let last = performance.now()
  let settled = true
  let spinning = false
  let cost = 0
  /** What a picture of all triangles took last, and whether few of them are shown. */
  let fullCost = 0
  let rough = false
  let isFirst = true
  let changing = false

  const modelBox = (): Box3 => {
    build()
    const box = new Box3()
    scene.updateMatrixWorld(true)
    for (const body of bodies.values()) box.union(body.bounds().applyMatrix4(model.matrixWorld))
    return box
  }

  const prepare = (): void => {
    scene.updateMatrixWorld(true)
    const camera = cameras.current()
    camera.updateMatrixWorld()
    if (setting.cut) {
      planesOf(setting.cut).forEach((p, i) => planes[i]?.copy(p.applyMatrix4(turning.matrixWorld)))
    }
    for (const { material } of [glow.lines, threads.lines]) {
      Object.assign(material, { clippingPlanes: planes, clipIntersection: true })
    }
    const from = cameras.eyeIn(turning.matrixWorld)
    const perPixel = cameras.perPixel()
    for (const body of bodies.values()) {
      body.lookFrom(from)
      body.dash(7 * perPixel)
    }
    lights.follow(camera)
  }

  const render = (): void => {
    frame = 0
    const now = performance.now()
    const passed = Math.min(0.1, (now - last) / 1000)
    const moving = controls.update(passed)
    last = now
    if (spinning) turning.rotation.z += 2 * Math.PI * SPIN * passed
    settled = !moving && !spinning
    const wasRough = rough
    build()
    setRough((!settled || changing) && fullCost > SLOW_PICTURE)
    prepare()
    renderer.render(scene, cameras.current())
    onPicture(settled && !rough)
    // How long the graphics hold up the page shows in when its next frame comes.
    requestAnimationFrame(() => {
      cost = performance.now() - now
      // The first picture of other triangles is not told by the time it takes to bring them over, nor
      // the very first by that of making the programs for the graphics.
      if (!rough && !wasRough && !isFirst) fullCost = cost
      isFirst = false
    })
    if (!settled) ask()
  }
  const setRough = (on: boolean): void => {
    rough = on
    for (const body of bodies.values()) body.setRough(on)
  }
  /** Asks for a picture of what changed; where pictures are slow the drawing board goes first. */
  const follow = (hurried: boolean): void => {
    if (cost <= SLOW_PICTURE || !hurried) ask()
    else pacing.later()
  }
  const ask = (): void => {
    pacing.stop()
    if (frame !== 0) return
    if (settled) last = performance.now()
    frame = requestAnimationFrame(render)
    onAsked()
  }
  const pacing = createPacing(ask)
  controls.addEventListener('control', ask)
  controls.addEventListener('update', ask)
  controls.addEventListener('transitionstart', ask)
  canvas.addEventListener('pointerdown', ask)
  canvas.addEventListener('wheel', ask)
  canvas.addEventListener('webglcontextlost', () => onLost(true))
  canvas.addEventListener('webglcontextrestored', () => {
    onLost(false)
    ask()
  })

  const draw = (): void => {
    const size = Math.max(1e-3, modelBox().getSize(new Vector3()).length())
    const manner: Manner = { ...setting, planes, pitch: Number((size / 55).toPrecision(1)) }
    shown.forEach((body, i) => bodies.get(body.id)?.show(body, manner, i))
    const isStudio = setting.display === 'studio'
    scene.environment = isStudio ? studio.room() : null
    lights.group.visible = !isStudio
    renderer.shadowMap.enabled = isStudio
    if (isStudio) {
      studio.place(modelBox())
      scene.add(studio.ground)
    } else scene.remove(studio.ground)
  }

  /** The way one looks at a place of the pane, in the space of the part. */
  const rayUnder = (x: number, y: number): Ray =>
    cameras.rayUnder(x, y).applyMatrix4(turning.matrixWorld.clone().invert())

  /** Gives every body shown its shape, unless that is done. */
  const build = (): void => {
    if (isBuilt) return
    isBuilt = true
    for (const [id, body] of bodies) {
      const still = shown.find((b) => b.id === id)
      // What was a full turn and is none any more is another thing to draw, and the other way.
      if (still && body instanceof LiftedBody === (still.mesh !== undefined)) continue
      turning.remove(body.group)
      body.dispose()
      bodies.delete(id)
    }
    for (const { id, section, mesh } of shown) {
      if (bodies.has(id)) continue
      const body = mesh ? new LiftedBody(mesh) : new TurnedBody(section)
      bodies.set(id, body)
      turning.add(body.group)
    }
    draw()
  }

  const show = (next: readonly ShownBody[], isChanging: boolean): void => {
    shown = next.filter((b) => b.section.regions.length > 0)
    changing = isChanging
    isBuilt = false
    // Where pictures are slow, only what will be in one is built while the part changes.
    if (cost <= SLOW_PICTURE || !changing) build()
    follow(changing)
  }

  return {
    show,
    set(next) {
      if (next.cut !== setting.cut) planes = next.cut ? planesOf(next.cut) : []
      // A cut that is opened faces the viewer, however far the part has spun.
      if (next.cut && !setting.cut && !spinning) turning.rotation.z = 0
      setting = next
      threads.lines.material.color.set(next.tones.edge)
      cameras.setPerspective(next.perspective)
      lights.setDark(next.tones.dark)
      draw()
      ask()
    },
    setLie(next) {
      lie = next
      // The part's axis is Z. Lying parts run to the right, their half-section upwards as on the board;
      // standing ones run upwards, their half-section to the right.
      if (lie === 'lying') model.quaternion.setFromRotationMatrix(LYING)
      else model.rotation.set(-Math.PI / 2, 0, 0)
      ask()
    },
    resize(width, height) {
      renderer.setSize(width, height, false)
      cameras.resize(width, height, false)
      ask()
    },
    fit(view, smooth) {
      cameras.fit(modelBox(), view, lie, smooth)
      ask()
    },
    hold() {
      cameras.hold(modelBox())
      ask()
    },
    turn(azimuth, polar) {
      void controls.rotate(azimuth, polar, true)
      ask()
    },
    approach(factor) {
      cameras.approach(factor)
      ask()
    },
    square(angle, normal) {
      scene.updateMatrixWorld(true)
      const out = new Vector3(
        normal.y * Math.cos(angle),
        normal.y * Math.sin(angle),
        normal.x,
      ).transformDirection(turning.matrixWorld)

      cameras.square(out)
      ask()
    },
    spin(on) {
      spinning = on
      ask()
    },
    placeOn: (frame, x, y) => placeOnFrame(rayUnder(x, y), frame),
    setAreas(areas, frame) {
      if (!frame && areaFaces.group.children.length === 0) return
      areaFaces.show(areas, frame, GLOW)
      ask()
    },
    hitAt(x, y) {
      const ray = rayUnder(x, y)
      const all = shown.filter((b) => !b.mesh).map((b) => ({ ...b, chord: chordFor(b.section) }))
      const turnedHit = nearestHit(all, ray, setting.cut)
      const hits = [...bodies].flatMap(([body, drawn]): Hit[] => {
        const found = drawn instanceof LiftedBody ? drawn.hit(ray, setting.cut) : undefined
        return found ? [{ body, ...found }] : []
      })
      const hit = [...(turnedHit ? [turnedHit] : []), ...hits].sort((a, b) => a.t - b.t)[0]
      return hit && { ...hit, perPixel: cameras.perPixel() }
    },
    project({ x: px, y: py, z: pz }) {
      const seen = new Vector3(px, py, pz)
      const size = renderer.getSize(new Vector2())
      const { x, y } = seen.applyMatrix4(model.matrixWorld).project(cameras.current())
      return { x: ((x + 1) / 2) * size.x, y: ((1 - y) / 2) * size.y }
    },
    setThreads(next) {
      // Parts without threads must not ask for a picture with every move of a drag.
      if (next.length === 0 && !threads.lines.visible) return
      threads.show(next)
      follow(true)
    },
    light(items) {
      glow.light(items)
      follow(true)
    },
    async picture(width, height, background) {
      const drawn = (): void => {
        setRough(false)
        prepare()
        renderer.render(scene, cameras.current())
      }
      const blob = await pictureOf(renderer, cameras, drawn, {
        ...{ width, height, background, parallel: !setting.perspective },
      })
      ask()
      if (!blob) throw new Error('the picture came out empty')
      return blob
    },
    eye: () => ({ azimuth: controls.azimuthAngle, polar: controls.polarAngle }),
    triangles: () => [...bodies.values()].reduce((sum, b) => sum + b.triangles, 0),
    dispose() {
      glow.dispose()
      threads.dispose()
      areaFaces.dispose()
      studio.dispose()
      cancelAnimationFrame(frame)
      pacing.stop()
      for (const body of bodies.values()) body.dispose()
      controls.dispose()
      renderer.dispose()
    },
  }
}
