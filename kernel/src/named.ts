import { faceName } from '@lathica/core/names'
import { partsOf, type OpenCascade, type Scope, type Shape } from './openCascade'

/** A face with the name it has got. */
export interface NamedFace {
  readonly face: Shape
  readonly name: string
}

/** A solid, or several in one compound, and the names of its faces. It has to be freed. */
export interface NamedSolid {
  readonly shape: Shape
  readonly faces: readonly NamedFace[]
}

export function freeSolid({ shape, faces }: NamedSolid): void {
  for (const { face } of faces) face.delete()
  shape.delete()
}

/** The name of a face that came from nowhere known. */
const UNKNOWN = '?'

/** A handle of one's own to the same shape. */
export const handleTo = (shape: Shape): Shape => shape.Oriented(shape.Orientation())

/**
 * Names the faces of a result after where they came from; faces whose origin is not told get a name
 * of the step with a question mark. The first name given to a face stays.
 */
export function named(
  oc: OpenCascade,
  shape: Shape,
  origins: Iterable<NamedFace>,
  step: string,
  scope: Scope,
): NamedSolid {
  const faces = [...partsOf(oc, shape, 'FACE', scope)]
  const names = new Array<string | undefined>(faces.length)
  for (const { face, name } of origins) {
    faces.forEach((own, i) => {
      if (names[i] === undefined && own.IsSame(face)) names[i] = name
    })
  }
  return {
    shape,
    faces: faces.map((f, i) => ({ face: handleTo(f), name: names[i] ?? faceName(step, UNKNOWN) })),
  }
}

/** The same solid under handles of one's own. */
export const sameSolid = ({ shape, faces }: NamedSolid): NamedSolid => ({
  shape: handleTo(shape),
  faces: faces.map(({ face, name }) => ({ face: handleTo(face), name })),
})
