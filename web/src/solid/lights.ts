import {
  AmbientLight,
  DirectionalLight,
  Group,
  HemisphereLight,
  type Camera,
  type Object3D,
} from 'three'

/** What lights the part wherever it is not in the studio. */
export interface Lights {
  readonly group: Object3D
  /** The key light stands over the viewer's left shoulder wherever one looks from. */
  follow(camera: Camera): void
  /** Less of it comes from the sky on dark paper. */
  setDark(dark: boolean): void
}

export function createLights(): Lights {
  const key = new DirectionalLight(0xffffff, 2.1)
  const fill = new DirectionalLight(0xfff3dd, 0.7)
  const sky = new HemisphereLight(0xffffff, 0x8d8777, 1.15)
  const group = new Group()
  group.add(key, key.target, fill, sky, new AmbientLight(0xffffff, 0.25))
  return {
    group,
    follow(camera) {
      key.position.set(-0.6, 0.9, 1.4).applyQuaternion(camera.quaternion)
      fill.position.set(1.2, -0.3, 0.5).applyQuaternion(camera.quaternion)
    },
    setDark: (dark) => (sky.intensity = dark ? 0.9 : 1.15),
  }
}
