import { radiusOf } from '../../../geometry'
import type { ChamferStep, CornerPick, FilletStep } from '../../../part'
import type { SectionEdge } from '../../../section'
import { saidText, type Asked, type SizeText } from '../asked'
import { placeOn, radiusOn, type StepAsks, type StepView } from '../kind'

/** How often a set comes, before its size. */
const times = (n: number): string => (n > 1 ? `${n} × ` : '')

export const fillet: StepAsks<FilletStep> = {
  asks: (step, view) =>
    step.sets.flatMap(({ radius, pick }, i): Asked[] => {
      const value = view.value(radius)
      const made = view
        .faces('round')
        .filter(
          ({ piece }) =>
            piece.kind === 'arc' && value !== undefined && Math.abs(radiusOf(piece) - value) < 1e-6,
        )
      const own = ofPick(made, pick)
      return view.size(
        `sets/${i}/radius`,
        radius,
        radiusOn(own) ?? solidPlace(view),
        `${times(own.length)}R`,
      )
    }),
}

export const chamfer: StepAsks<ChamferStep> = {
  idle: (step) =>
    step.sets.flatMap(({ across }, i) => (across.trim() === '' ? [] : [`sets/${i}/angle`])),
  asks: (step, view) =>
    step.sets.flatMap(({ along, across, angle, pick }, i): Asked[] => {
      const own = ofPick(view.faces('bevel'), pick)
      const first = view.text(along, times(own.length))
      const other = across.trim() === '' ? view.text(angle, '', 'angle') : view.text(across)
      const second = across.trim() === '' ? 'angle' : 'across'
      const text: SizeText = { text: `${saidText(first)} × ${saidText(other)}` }
      const shape = placeOn(own) ?? solidPlace(view)
      return view.call([`sets/${i}/along`, `sets/${i}/${second}`], [text], shape)
    }),
}

/** Of a set that names its corners, the edges made there; of others all. */
function ofPick(made: readonly SectionEdge[], pick: CornerPick): readonly SectionEdge[] {
  if (pick.kind !== 'corners') return made
  const wanted = pick.corners.map((c) => c.replace(/#\d+$/, '').split('|').sort().join('|'))
  const own = made.filter(({ name }) => {
    const [, inner = ''] = /^[a-z]+\((.*)\)/.exec(name.entity) ?? []
    return wanted.includes(partsOf(inner).sort().join('|'))
  })
  return own.length > 0 ? own : made
}

/** The two keys that a corner was made from: a plus sign between them, at no depth of parentheses. */
function partsOf(inner: string): string[] {
  let depth = 0
  for (let i = 0; i < inner.length; i++) {
    if (inner[i] === '(') depth++
    if (inner[i] === ')') depth--
    if (inner[i] === '+' && depth === 0) return [inner.slice(0, i), inner.slice(i + 1)]
  }
  return [inner]
}

/** Where a step told a size itself. */
function solidPlace(view: StepView): ReturnType<typeof placeOn> {
  const [told] = view.sizes
  return (
    told && {
      kind: 'place',
      at: { x: told.at.z, y: Math.hypot(told.at.x, told.at.y) },
      out: { x: 0, y: 1 },
    }
  )
}
