import { add, leftNormal, pointAt, scale } from '../../../geometry'
import type { LengthStep, ShellStep, WallStep } from '../../../part'
import type { SectionEdge } from '../../../section'
import type { Shape } from '../asked'
import { longestOf, reachOf, type StepAsks } from '../kind'

/** Across a wall from the middle of one of its faces, square to it. */
function acrossWall(faces: readonly SectionEdge[], thickness: number): Shape | undefined {
  const face = longestOf(faces)
  if (!face) return undefined
  const from = pointAt(face.piece, 0.35)
  const to = add(from, scale(leftNormal(face.piece, 0.35), thickness))
  const [x, y] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
  if (y < 1e-9 * thickness) return { kind: 'along', from, to, inside: false }
  return x < 1e-9 * thickness ? { kind: 'radial', from, to } : { kind: 'slant', from, to }
}

const straight = (faces: readonly SectionEdge[]): readonly SectionEdge[] => {
  const lines = faces.filter((e) => e.piece.kind === 'line')
  return lines.length > 0 ? lines : faces
}

export const wall: StepAsks<WallStep> = {
  idle: ({ side }) => (side === 'both' ? [] : ['inner']),
  asks: (step, view) => {
    const by = view.value(step.thickness)
    const shape = by === undefined ? undefined : acrossWall(straight(view.faces()), by)
    return view.size('thickness', step.thickness, shape)
  },
}

export const shell: StepAsks<ShellStep> = {
  asks: (step, view) => {
    const by = view.value(step.thickness)
    const shape = by === undefined ? undefined : acrossWall(straight(view.faces()), by)
    return view.size('thickness', step.thickness, shape)
  },
}

export const length: StepAsks<LengthStep> = {
  asks: (step, view) => {
    const end = view.faces('end')
    const all = reachOf(view.bodyEdges)
    if (!all) return []
    const [left, right] = all
    const low = end.flatMap((e) => [e.piece.from, e.piece.to])
    return low.length === 0
      ? []
      : view.size('length', step.length, { kind: 'along', from: left, to: right, inside: false })
  },
}
