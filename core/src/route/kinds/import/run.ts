import { fail, type Result } from '../../../result'
import { arc, line, place, vec, cubic, simplePieces, type Piece } from '../../../geometry'
import {
  combine as combinedSections,
  profileOf,
  type Section,
  type SectionEdge,
} from '../../../section'
import { rectangleOf, type SolidTool } from '../../../solid'
import type { ImportStep } from '../../../part'
import { hasBody, notSound, worked, type Outcome, type StepContext } from '../../steps/context'

/** A solid as it came in a file. */
export function imported(step: ImportStep, context: StepContext): Result<Outcome> {
  if (!hasBody(context, step.body)) {
    return fail('step.body', 'Its body is gone.', 'Choose another body for this step.')
  }
  const [at, x, z] = [step.frame.at, step.frame.x, step.frame.z].map(([a = 0, b = 0, c = 0]) =>
    place(a, b, c),
  )
  if (!at || !x || !z) throw new Error('a frame has three parts')
  const tool: SolidTool = {
    ...{ kind: 'file', file: step.file, solid: step.solid, planes: step.planes },
    ...{ frame: { at, x, z }, mark: '' },
  }
  const before = context.sectionOf(step.body)
  const section = combinedSections(before, turnedImage(step), 'add')
  if (!section) return notSound
  return worked(
    context,
    step.body,
    [{ kind: 'combine', step: step.id, effect: 'add', tools: [tool] }],
    {
      turned: section,
    },
  )
}

/** What it would be as a full turn: its own half-section, or as far as it goes. */
function turnedImage(step: ImportStep): Section {
  const edges = step.outline.flatMap((numbers, i): SectionEdge[] => {
    const name = { step: step.id, entity: `o${i + 1}`, role: 'drawn' } as const
    return simplePieces(pieceFrom(numbers)).map((piece) => ({ piece, name }))
  })
  const { section } = profileOf(edges, step.id)
  return section.regions.length > 0
    ? section
    : rectangleOf(step.id, vec(step.from, step.inner), vec(step.to, step.radius))
}

/** A piece by its numbers, as an import step keeps it. */
function pieceFrom([ax = 0, ay = 0, bx = 0, by = 0, ...more]: readonly number[]): Piece {
  const [from, to] = [vec(ax, ay), vec(bx, by)]
  const [cx, cy = 0, third = 0, dy] = more
  if (cx === undefined) return line(from, to)
  if (dy !== undefined) return cubic(from, vec(cx, cy), vec(third, dy), to)
  return arc(from, to, vec(cx, cy), third === 1)
}
