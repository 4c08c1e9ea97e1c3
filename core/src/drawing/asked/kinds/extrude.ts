import type { ExtrudeStep } from '../../../part'
import type { Asked, SizeText } from '../asked'
import { lookOf, type StepAsks, type StepView } from '../kind'
import { atEnd } from '../ends'

/** How far a region of an end sketch is drawn out, told at its middle on the view of that end. */
export const extrude: StepAsks<ExtrudeStep> = {
  idle: (step) => [
    ...(step.reach === 'length' ? [] : ['length', 'back']),
    ...(step.side === 'both' ? [] : ['back']),
  ],
  asks: (step, view): readonly Asked[] => {
    const from = lookOf(view)
    const middle = view.middleOf(step.sketch, from)
    const isPlain = step.reach === 'length' && step.side === 'one'
    if (!middle || !isPlain || step.effect === 'common') return []
    const lines = [lineOf(step, view), ...draftOf(step, view)]
    const shows = ['length', ...(step.draft.trim() === '' ? [] : ['draft'])]
    return view.call(shows, lines, atEnd(middle, from)).map((a) => ({
      ...a,
      value: view.value(step.length) ?? NaN,
    }))
  },
}

const lineOf = (step: ExtrudeStep, view: StepView): SizeText =>
  step.effect === 'cut' ? view.text(step.length, '↧') : withWord(view.text(step.length), 'high')

const withWord = (told: SizeText, word: string): SizeText => ({
  ...told,
  text: `${told.text} ${word}`,
})

const draftOf = ({ draft }: ExtrudeStep, view: StepView): SizeText[] =>
  draft.trim() === '' ? [] : [view.text(draft, 'draft ', 'angle')]
