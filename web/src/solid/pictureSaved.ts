import { saveFile } from '../dispatch/saveFile'
import { tellProblem } from '../notices'
import type { SolidScene } from './scene'

/** Saves a picture of the view, in pixels; tells whether it could, and what is wrong if not. */
export async function pictureSaved(
  scene: SolidScene,
  spec: { readonly wide: number; readonly high: number; readonly background: string | undefined },
  name: string,
): Promise<boolean> {
  try {
    const blob = await scene.picture(spec.wide, spec.high, spec.background)
    saveFile(new Uint8Array(await blob.arrayBuffer()), `${name}.png`, 'image/png')
    return true
  } catch {
    tellProblem({
      message: 'This picture could not be made.',
      mend: 'Take a smaller size, and try again.',
    })
    return false
  }
}
