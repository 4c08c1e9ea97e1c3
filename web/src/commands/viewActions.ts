import { useViewsStore, type ViewOfPart } from '../store/views'
import type { Action } from './action'

const VIEWS: Readonly<Record<ViewOfPart, Pick<Action, 'label' | 'help'>>> = {
  model: { label: 'Model', help: 'Goes to the modelling screen.' },
  inspect: {
    label: 'Inspect',
    help: 'Goes to the inspection screen: measures, sheet, mass, charts.',
  },
  sheet: { label: 'Sheet', help: 'Goes to the drawing for the workshop.' },
  dispatch: { label: 'Dispatch', help: 'Goes to the files the part is handed over as.' },
}

/** Ways to the other views of the part; the one that is gone back and forth to has a key. */
export function viewActions(here: ViewOfPart): Action[] {
  const views = useViewsStore()
  const other = here === 'model' ? 'inspect' : 'model'
  return (Object.keys(VIEWS) as ViewOfPart[])
    .filter((view) => view !== here)
    .map((view) => ({
      id: `go:${view}`,
      ...VIEWS[view],
      ...(view === other ? { key: 'i' } : {}),
      run: () => views.go(view),
    }))
}
