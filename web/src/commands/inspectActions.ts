import { useInspectStore, type InspectTab } from '../store/inspect'
import { useRouteStore } from '../store/route'
import type { Action } from './action'
import { lookActions } from './lookActions'
import { screenActions } from './registry'
import { viewActions } from './viewActions'

const TABS: readonly (readonly [InspectTab, string, string, string])[] = [
  ['sheet', 'q', 'Inspection sheet', 'Shows the sheet: every figure beside its target.'],
  ['measure', 'w', 'Measure', 'Shows what is picked, and all figures it has.'],
  [
    'tolerances',
    't',
    'Tolerances',
    'Shows which values may be off, and what a distance varies by.',
  ],
  ['mass', 'e', 'Mass properties', 'Shows mass, centre, moments and stock, body by body.'],
]

/** Every action of the inspection screen. */
export function inspectActions(): readonly Action[] {
  const inspect = useInspectStore()
  const route = useRouteStore()
  return [
    ...TABS.map(([tab, key, label, help]): Action => ({
      ...{ id: `tab:${tab}`, label, help, key },
      run: () => (inspect.tab = tab),
    })),
    {
      id: 'nextChart',
      label: 'Next chart',
      help: 'Shows the next figure along the axis.',
      key: 'r',
      run: () => {
        const at = inspect.charts.indexOf(inspect.chart)
        inspect.chosenChart = inspect.charts[(at + 1) % inspect.charts.length] ?? 'diameters'
      },
    },
    {
      id: 'letGo',
      label: 'Let go of the picks',
      help: 'Forgets what was picked to be measured, or closes the row that is open.',
      key: 'Escape',
      run: () => {
        if (inspect.picks.length > 0) inspect.picks = []
        else inspect.rowId = undefined
        route.hoverRef = undefined
      },
    },
    ...lookActions(),
    ...viewActions('inspect'),
    ...screenActions().filter((a) => a.id !== 'largest'),
  ]
}
