import type { Part } from '../part'
import { evaluate } from '../route'
import { faceEdges } from './states'

/** The driving size that a cylinder was drawn with; undefined where no size of a profile gives its diameter. */
export function diameterSizeOf(
  part: Part,
  body: string,
  on: string,
): { readonly sketch: string; readonly id: string } | undefined {
  const name = faceEdges(evaluate(part), body, on)[0]?.name
  const step = part.route.find((s) => s.id === name?.step)
  const sketch = part.sketches.find((s) => step && 'sketch' in step && s.id === step.sketch)
  const line = sketch?.entities.find((e) => e.id === name?.entity)
  if (!sketch || line?.kind !== 'line') return undefined
  const size = sketch.sizes.find(
    (s) => s.kind === 'diameter' && !s.reference && [line.from, line.to].includes(s.point),
  )
  return size && { sketch: sketch.id, id: size.id }
}
