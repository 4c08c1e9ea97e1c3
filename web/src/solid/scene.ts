import CameraControls from 'camera-controls'
import {
  AmbientLight,
  Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  Group,
  HemisphereLight,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  MeshStandardMaterial,
  OrthographicCamera,
  Quaternion,
  Raycaster,
  Scene,
  Sphere,
  Spherical,
  Vector2,
  Vector3,
  Vector4,
  WebGLRenderer,
} from 'three'
import {
  DISPLAY_CHORD_TOLERANCE,
  latheMesh,
  type LatheMesh,
  pointsAlong,
  type Corner,
  type Section,
  type SectionEdge,
  type Span,
  type Vec,
} from '@lathica/core'

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

/** A body as the solid pane shows it. */
export interface ShownBody {
  readonly id: string
  readonly section: Section
  readonly colour: string
}

interface BodyObjects {
  section: Section
  mesh: LatheMesh
  readonly solid: Mesh<BufferGeometry, MeshStandardMaterial>
  readonly edges: LineSegments<BufferGeometry, LineBasicMaterial>
}

export interface SolidScene {
  /** @param hurried true while the bodies change with every move of the pointer */
  show(bodies: readonly ShownBody[], hurried: boolean): void
  setTones(edge: string, dark: boolean): void
  setLie(lie: 'lying' | 'standing'): void
  resize(width: number, height: number): void
  /** Brings the whole part into view, looking from the front and a little above. */
  fit(smooth: boolean): void
  /** The place of the section, in mm, that lies under a place of the pane, and how large a pixel is. */
  placeAt(x: number, y: number): { readonly at: Vec; readonly perPixel: number } | undefined
  /** Lights a face or a circular edge. */
  light(ref: { readonly edge?: SectionEdge; readonly corner?: Corner } | undefined): void
  dispose(): void
}

/** From where one looks at first, in radians: from the front, a little from the right and above. */
const AZIMUTH = 0.55
const POLAR = 1.22

/** A picture that holds up the page for longer than this, in ms, is drawn less often than asked for. */
const SLOW_PICTURE = 25
/** Slow pictures take about one part in so many of the time while the part changes. */
const SLOW_SHARE = 20
/** However slow, one comes after so long, in ms. */
const LONGEST_WAIT = 1000

/** The tone of what is lit: the halo of the board. */
const GLOW = '#b7822e'
/** Steps round the axis of what is lit. */
const GLOW_STEPS = 96

/** A circular edge as its circle; a face as circles along it, close enough to read as a surface. */
function ringsOf({ edge, corner }: { edge?: SectionEdge; corner?: Corner }): BufferGeometry {
  const places: Vec[] = corner ? [corner.at] : []
  if (edge) {
    const { piece } = edge
    if (piece.kind === 'line') {
      const rows = 14
      for (let i = 0; i <= rows; i++) {
        const t = i / rows
        places.push({
          x: piece.from.x + (piece.to.x - piece.from.x) * t,
          y: piece.from.y + (piece.to.y - piece.from.y) * t,
        })
      }
    } else places.push(...pointsAlong(piece, 0.05))
  }
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

/** Any distance will do for parallel rays; near and far planes lie well beyond it, in mm. */
const VIEWING_DISTANCE = 1000

/**
 * The shaded part. It renders only when something changed, never in an idle loop.
 * @throws when the browser offers no WebGL
 */
export function createSolidScene(canvas: HTMLCanvasElement): SolidScene {
  const renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true })
  // Opaque bodies need no order, and sorting asks for bounds that change at every move of a drag.
  renderer.sortObjects = false
  renderer.setPixelRatio(Math.min(2, window.devicePixelRatio || 1))
  const scene = new Scene()
  const model = new Group()
  const camera = new OrthographicCamera(-1, 1, 1, -1, -1e5, 1e5)
  const controls = new CameraControls(camera, canvas)
  void controls.setLookAt(0, 0, VIEWING_DISTANCE, 0, 0, 0)
  controls.draggingSmoothTime = 0.04
  controls.smoothTime = 0.12
  controls.dollyToCursor = true
  controls.minZoom = 1e-4
  controls.maxZoom = 1e4
  const keyLight = new DirectionalLight(0xffffff, 2.1)
  const fillLight = new DirectionalLight(0xfff3dd, 0.7)
  const sky = new HemisphereLight(0xffffff, 0x8d8777, 1.15)
  scene.add(model, keyLight, keyLight.target, fillLight, sky, new AmbientLight(0xffffff, 0.25))

  const bodies = new Map<string, BodyObjects>()
  const glow = new LineSegments(new BufferGeometry(), new LineBasicMaterial({ color: GLOW }))
  glow.frustumCulled = false
  glow.visible = false
  model.add(glow)
  let edgeTone = new Color('#1e2a32')
  let frame = 0
  let last = performance.now()
  let settled = true
  let cost = 0
  let waiting: ReturnType<typeof setTimeout> | undefined

  const render = (): void => {
    frame = 0
    const now = performance.now()
    const moving = controls.update(Math.min(0.1, (now - last) / 1000))
    last = now
    // The key light stands over the viewer's left shoulder wherever one looks from.
    keyLight.position.set(-0.6, 0.9, 1.4).applyQuaternion(camera.quaternion)
    fillLight.position.set(1.2, -0.3, 0.5).applyQuaternion(camera.quaternion)
    renderer.render(scene, camera)
    settled = !moving
    // How long the graphics hold up the page shows in when its next frame comes.
    requestAnimationFrame(() => (cost = performance.now() - now))
    if (moving) ask()
  }
  /** Asks for a picture of what changed; where pictures are slow the drawing board goes first. */
  const follow = (hurried: boolean): void => {
    if (cost <= SLOW_PICTURE || !hurried) {
      ask()
      return
    }
    if (waiting !== undefined) return
    const due = last + SLOW_SHARE * cost - performance.now()
    waiting = setTimeout(
      () => {
        waiting = undefined
        ask()
      },
      Math.min(LONGEST_WAIT, Math.max(0, due)),
    )
  }
  const ask = (): void => {
    if (frame !== 0) return
    if (settled) last = performance.now()
    frame = requestAnimationFrame(render)
  }
  controls.addEventListener('control', ask)
  controls.addEventListener('update', ask)
  controls.addEventListener('transitionstart', ask)
  canvas.addEventListener('pointerdown', ask)
  canvas.addEventListener('wheel', ask)

  const drop = (id: string): void => {
    const body = bodies.get(id)
    if (!body) return
    model.remove(body.solid, body.edges)
    body.solid.geometry.dispose()
    body.solid.material.dispose()
    body.edges.geometry.dispose()
    body.edges.material.dispose()
    bodies.delete(id)
  }

  const create = (section: Section): BodyObjects => {
    const material = new MeshStandardMaterial({
      roughness: 0.42,
      metalness: 0.35,
      side: DoubleSide,
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
    })
    const solid = new Mesh(new BufferGeometry(), material)
    const edges = new LineSegments(
      new BufferGeometry(),
      new LineBasicMaterial({ color: edgeTone, transparent: true, opacity: 0.85 }),
    )
    // Bounds are not kept up to date while sizes change, so nothing is culled by them.
    solid.frustumCulled = false
    edges.frustumCulled = false
    model.add(solid, edges)
    return { section, mesh: latheMesh(section, chordFor(section)), solid, edges }
  }

  const show = (shown: readonly ShownBody[], hurried: boolean): void => {
    const wanted = shown.filter((b) => b.section.regions.length > 0)
    for (const id of [...bodies.keys()]) if (!wanted.some((b) => b.id === id)) drop(id)
    for (const { id, section, colour } of wanted) {
      const known = bodies.get(id)
      const body = known ?? create(section)
      bodies.set(id, body)
      if (!known || known.section !== section) {
        const next = known ? latheMesh(section, chordFor(section), known.mesh) : body.mesh
        fill(body, next, !known || next.positions !== known.mesh.positions)
        body.section = section
        body.mesh = next
      }
      body.solid.material.color.set(colour)
    }
    follow(hurried)
  }

  return {
    show,
    setTones(edge, dark) {
      edgeTone = new Color(edge)
      for (const { edges } of bodies.values()) edges.material.color = edgeTone
      sky.intensity = dark ? 0.9 : 1.15
      ask()
    },
    setLie(lie) {
      // The part's axis is Z. Lying parts run to the right, standing ones upwards.
      if (lie === 'lying') model.rotation.set(0, Math.PI / 2, 0)
      else model.rotation.set(-Math.PI / 2, 0, 0)
      ask()
    },
    resize(width, height) {
      renderer.setSize(width, height, false)
      camera.left = -width / 2
      camera.right = width / 2
      camera.top = height / 2
      camera.bottom = -height / 2
      camera.updateProjectionMatrix()
      ask()
    },
    fit(smooth) {
      const box = new Box3()
      scene.updateMatrixWorld(true)
      for (const { solid } of bodies.values()) {
        solid.geometry.computeBoundingBox()
        box.expandByObject(solid)
      }
      if (box.isEmpty()) return
      const size = box.getSize(new Vector3())
      const middle = box.getCenter(new Vector3())
      void controls.rotateTo(AZIMUTH, POLAR, smooth)
      void controls.moveTo(middle.x, middle.y, middle.z, smooth)
      void controls.zoomTo(zoomFor(size, camera), smooth)
      ask()
    },
    placeAt(x, y) {
      const size = renderer.getSize(new Vector2())
      const pointer = new Vector2((2 * x) / size.x - 1, 1 - (2 * y) / size.y)
      const ray = new Raycaster()
      camera.updateMatrixWorld()
      ray.setFromCamera(pointer, camera)
      for (const { solid } of bodies.values()) solid.geometry.computeBoundingSphere()
      const [hit] = ray.intersectObjects([...bodies.values()].map((b) => b.solid))
      if (!hit) return undefined
      const local = model.worldToLocal(hit.point.clone())
      return { at: { x: local.z, y: Math.hypot(local.x, local.y) }, perPixel: 1 / camera.zoom }
    },
    light(ref) {
      glow.geometry.dispose()
      glow.geometry = ref ? ringsOf(ref) : new BufferGeometry()
      glow.visible = ref !== undefined
      // Drawn after the bodies, in the order of the scene.
      model.add(glow)
      ask()
    },
    dispose() {
      glow.geometry.dispose()
      glow.material.dispose()
      cancelAnimationFrame(frame)
      clearTimeout(waiting)
      for (const id of [...bodies.keys()]) drop(id)
      controls.dispose()
      renderer.dispose()
    },
  }
}

/** How far to zoom so that a box seen from the usual place fills nine tenths of the pane. */
function zoomFor(size: Vector3, camera: OrthographicCamera): number {
  const across = Math.abs(size.x * Math.cos(AZIMUTH)) + Math.abs(size.z * Math.sin(AZIMUTH))
  const deep = Math.abs(size.x * Math.sin(AZIMUTH)) + Math.abs(size.z * Math.cos(AZIMUTH))
  const upright = size.y * Math.sin(POLAR) + deep * Math.cos(POLAR)
  const [width, height] = [camera.right - camera.left, camera.top - camera.bottom]
  return 0.9 * Math.min(width / Math.max(across, 1e-6), height / Math.max(upright, 1e-6))
}

/** Small parts get finer chords than the usual tolerance, large ones never more than it takes. */
function chordFor(section: Section): number {
  const radius = section.regions
    .flatMap((r) => r.outer)
    .reduce((most, e) => Math.max(most, e.piece.from.y, e.piece.to.y), 0)
  return Math.min(DISPLAY_CHORD_TOLERANCE, Math.max(1e-5, radius / 1200))
}

/** Puts a mesh into the geometries; the same buffers are only marked as changed. */
function fill(body: BodyObjects, mesh: LatheMesh, fresh: boolean): void {
  const { solid, edges } = body
  if (fresh) {
    solid.geometry.dispose()
    edges.geometry.dispose()
    solid.geometry = new BufferGeometry()
    solid.geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3))
    solid.geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3))
    solid.geometry.setIndex(new BufferAttribute(mesh.indices, 1))
    edges.geometry = new BufferGeometry()
    edges.geometry.setAttribute('position', new BufferAttribute(mesh.edges, 3))
  } else {
    const { vertices, edges: edgeVertices } = mesh.written
    markWritten(solid.geometry, ['position', 'normal'], vertices)
    markWritten(edges.geometry, ['position'], edgeVertices)
  }
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
