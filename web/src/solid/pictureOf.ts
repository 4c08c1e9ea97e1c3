import { Vector2, type WebGLRenderer } from 'three'
import type { Cameras } from './cameras'

/** A picture of so many pixels, on a tone or on nothing. */
interface Picture {
  readonly width: number
  readonly height: number
  readonly background: string | undefined
  /** Whether the rays are parallel, so that what is seen grows with the zoom. */
  readonly parallel: boolean
}

/** Draws the view once in another size; pane and view are then what they were. */
export async function pictureOf(
  renderer: WebGLRenderer,
  cameras: Cameras,
  draw: () => void,
  { width, height, background, parallel }: Picture,
): Promise<Blob | null> {
  const size = renderer.getSize(new Vector2())
  const ratio = renderer.getPixelRatio()
  const scale = Math.min(width / size.x, height / size.y)
  const camera = cameras.current()
  const { zoom } = camera
  renderer.setPixelRatio(1)
  renderer.setSize(width, height, false)
  cameras.resize(width, height, true)
  if (parallel) {
    camera.zoom = zoom * scale
    camera.updateProjectionMatrix()
  }
  renderer.setClearColor(background ?? '#000000', background === undefined ? 0 : 1)
  draw()
  const blob = await new Promise<Blob | null>((done) =>
    renderer.domElement.toBlob(done, 'image/png'),
  )
  camera.zoom = zoom
  renderer.setClearColor('#000000', 0)
  renderer.setPixelRatio(ratio)
  renderer.setSize(size.x, size.y, false)
  cameras.resize(size.x, size.y, true)
  return blob
}
