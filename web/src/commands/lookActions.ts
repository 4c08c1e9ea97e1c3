import { VIEWS, useLookStore, type ViewName } from '../store/look'
import { usePartStore } from '../store/part'
import { viewWords } from '../solid/words'
import type { Action } from './action'

/** The order of the views on the keys Alt+1 to Alt+6: as the buttons stand on the solid pane. */
const ORDER: readonly ViewName[] = [
  'threeQuarter',
  'front',
  'otherThreeQuarter',
  'otherEnd',
  'top',
  'end',
]

/** How the part is looked at. */
export function lookActions(): Action[] {
  const look = useLookStore()
  const parts = usePartStore()
  return [
    {
      id: 'cutView',
      label: 'Cut view',
      help: 'Cuts the solid open to look inside, or closes it; which cut is chosen on its pane.',
      key: 'h',
      icon: 'cutHalf',
      run: () => (look.isCut = !look.isCut),
    },
    {
      id: 'display',
      label: 'Next display',
      help: 'Draws the solid in the next way: shaded, with edges, hidden lines, see-through, studio, stripes.',
      key: 'j',
      run: look.nextDisplay,
    },
    {
      id: 'shapeCheck',
      label: 'Next shape check',
      help: 'Draws the curvature of the outline as a comb, the thickness of its walls, or its draw angles; then nothing.',
      key: 'u',
      run: look.nextCheck,
    },
    {
      id: 'tolerances',
      label: 'Tolerances on the board',
      help: 'Shows tolerances beside sizes as they are written, by their limits, or both.',
      key: 'Alt+t',
      run: look.nextTolerances,
    },
    {
      id: 'perspective',
      label: 'Perspective',
      help: 'Looks at the solid in perspective, or along parallel lines.',
      key: 'k',
      icon: 'perspective',
      run: () => (look.perspective = !look.perspective),
    },
    {
      id: 'spin',
      label: 'Spin',
      help: 'Lets the solid turn slowly about its axis, or stops it.',
      key: 'o',
      icon: 'spin',
      run: () => (look.spinning = !look.spinning),
    },
    {
      id: 'points',
      label: 'Points on the solid',
      help: 'Shows the points of the profile in hand on the solid, in their plane, to be pulled there.',
      key: 'Alt+p',
      icon: 'pointsInSpace',
      run: () => (look.points = !look.points),
    },
    {
      id: 'square',
      label: 'Square to the face',
      help: 'Looks square onto the face of the solid under the pointer, or the one picked.',
      key: 'Alt+0',
      icon: 'square',
      run: () => look.ask('square'),
    },
    ...VIEWS.map((view): Action => ({
      id: `view:${view}`,
      label: `View ${viewWords(view, parts.lie).words}`,
      help: 'Turns the solid so.',
      key: `Alt+${ORDER.indexOf(view) + 1}`,
      run: () => look.ask(view),
    })),
  ]
}
