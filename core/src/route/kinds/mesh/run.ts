import { fail, succeed, type Result } from '../../../result'
import { place, turnedFrame, vec, type Frame } from '../../../geometry'
import { meshInPart, rectangleOf, type BareMesh, type PlacedMesh } from '../../../solid'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import type { MeshStep } from '../../../part'
import { positive, type Outcome, type StepContext } from '../../steps/context'
import { angleOr, lengthOr } from '../../steps/common'

/** The file's own directions as they stand in the part, one of them along the axis. */
const LYING: Readonly<Record<MeshStep['lies'], Pick<Frame, 'x' | 'z'>>> = {
  z: { x: place(1, 0, 0), z: place(0, 0, 1) },
  x: { x: place(0, 0, 1), z: place(0, 1, 0) },
  y: { x: place(0, 1, 0), z: place(1, 0, 0) },
}

/** Triangles from a file as a body to go by: no step works on it, and it is not weighed. */
export function meshToGoBy(step: MeshStep, context: StepContext): Result<Outcome> {
  const body = context.bodies.find((b) => b.id === step.body)
  if (!body) return fail('step.body', 'Its body is gone.', 'Choose another body for this step.')
  if (context.isMesh(step.body) || context.sectionOf(step.body).regions.length > 0) {
    return fail(
      'mesh.body',
      `${body.name} is something else already.`,
      'A mesh takes a body of its own: choose one that is empty.',
    )
  }
  const scale =
    step.scale.trim() === '' ? succeed(1) : positive(context, step.scale, 'number', 'scale')
  if (!scale.ok) return scale
  const along = lengthOr(context, step.along, 0, 'distance along the axis')
  if (!along.ok) return along
  const turn = angleOr(context, step.turn, 0, 'angle')
  if (!turn.ok) return turn
  const frame = turnedFrame({ at: place(0, 0, along.value), ...LYING[step.lies] }, turn.value)
  const placed: PlacedMesh = { packed: step.mesh, frame, scale: scale.value }
  const mesh = read(placed)
  if (!mesh) {
    return fail('mesh.broken', 'Its triangles cannot be read any more.', 'Bring the file in again.')
  }
  const reach = reachOf(mesh)
  return succeed({
    // As a full turn it is told by its reach alone.
    sections: new Map([
      [step.body, rectangleOf(step.id, vec(reach.from, 0), vec(reach.to, reach.radius))],
    ]),
    meshes: new Map([[step.body, placed]]),
    notes: [],
  })
}

function read(placed: PlacedMesh): BareMesh | undefined {
  try {
    return meshInPart(placed)
  } catch {
    return undefined
  }
}

/** How far it goes along the axis, and out from it; never quite flat. */
function reachOf({ positions }: BareMesh): { from: number; to: number; radius: number } {
  let [from, to, radius] = [Infinity, -Infinity, VERTEX_TOLERANCE]
  for (let i = 0; i < positions.length; i += 3) {
    const [x = 0, y = 0, z = 0] = positions.subarray(i, i + 3)
    from = Math.min(from, z)
    to = Math.max(to, z)
    radius = Math.max(radius, Math.hypot(x, y))
  }
  return { from, to: Math.max(to, from + 10 * VERTEX_TOLERANCE), radius }
}
