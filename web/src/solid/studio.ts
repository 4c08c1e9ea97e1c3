import {
  type Box3,
  DirectionalLight,
  Group,
  Mesh,
  PMREMGenerator,
  PlaneGeometry,
  type Scene,
  ShadowMaterial,
  Vector3,
  type Texture,
  type WebGLRenderer,
} from 'three'
import { RoomEnvironment } from 'three/examples/jsm/environments/RoomEnvironment.js'

/** The studio: a room of soft lamps computed once, and a ground that takes the shadow. */
export interface Studio {
  readonly ground: Group
  /** The room as surfaces mirror it. */
  room(): Texture
  /** Puts the ground under a box, and the lamp over it. */
  place(box: Box3): void
  dispose(): void
}

export function createStudio(renderer: WebGLRenderer): Studio {
  const ground = new Group()
  const floor = new Mesh(new PlaneGeometry(1, 1), new ShadowMaterial({ opacity: 0.28 }))
  floor.rotation.x = -Math.PI / 2
  floor.receiveShadow = true
  const lamp = new DirectionalLight(0xffffff, 1.6)
  lamp.castShadow = true
  lamp.shadow.mapSize.set(2048, 2048)
  lamp.shadow.radius = 6
  lamp.shadow.bias = -0.0005
  lamp.shadow.normalBias = 0.02
  ground.add(floor, lamp, lamp.target)
  let made: Texture | undefined

  return {
    ground,
    room() {
      if (made) return made
      const generator = new PMREMGenerator(renderer)
      const scene: Scene = new RoomEnvironment()
      made = generator.fromScene(scene, 0.04).texture
      generator.dispose()
      return made
    },
    place(box) {
      const middle = box.getCenter(new Vector3())
      const reach = box.getSize(new Vector3()).length()
      floor.position.set(middle.x, box.min.y - 1e-3 * reach, middle.z)
      floor.scale.setScalar(12 * reach)
      lamp.target.position.copy(middle)
      lamp.position.set(middle.x - 0.6 * reach, middle.y + 1.5 * reach, middle.z + 0.9 * reach)
      const { camera } = lamp.shadow
      camera.left = camera.bottom = -1.2 * reach
      camera.right = camera.top = 1.2 * reach
      camera.near = 0.1 * reach
      camera.far = 5 * reach
      camera.updateProjectionMatrix()
      lamp.shadow.needsUpdate = true
    },
    dispose() {
      made?.dispose()
      floor.geometry.dispose()
      floor.material.dispose()
      lamp.dispose()
    },
  }
}
