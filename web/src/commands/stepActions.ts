import { isEndSketch } from '@lathica/core/sketch'
import { usesSketch } from '@lathica/core/part'
import { duplicateStep, moveStep, setAside } from '@lathica/core/edit'
import type { IconName } from '../icons/paths'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import {
  hasMaterial,
  joinBodies,
  makeStep,
  moveBody,
  revolveCut,
  standRidges,
  type TurnedKind,
} from './makeStep'
import { beginSketch } from './beginSketch'
import { millActions } from './millActions'
import type { Action } from './action'

/** A step's place on the pad, its name and what it does. */
const STEPS: readonly {
  readonly kind: TurnedKind
  readonly key: string
  readonly icon: IconName
  readonly label: string
  readonly help: string
}[] = [
  {
    ...{ kind: 'wall', key: 'w', icon: 'wall', label: 'Wall' },
    help: 'Turns an open chain, given a thickness.',
  },
  {
    ...{ kind: 'fillet', key: 'a', icon: 'roundEdge', label: 'Fillet' },
    help: 'Rounds circular edges of the part, picked or by rule.',
  },
  {
    ...{ kind: 'shell', key: 's', icon: 'shell', label: 'Shell' },
    help: 'Hollows the body out to a wall, with faces left open.',
  },
  {
    ...{ kind: 'chamfer', key: 'd', icon: 'bevelEdge', label: 'Chamfer' },
    help: 'Bevels circular edges, by legs or by leg and angle.',
  },
  {
    ...{ kind: 'groove', key: 'f', icon: 'groove', label: 'Groove' },
    help: 'Cuts a groove into a cylinder, cone or face that is clicked.',
  },
  {
    ...{ kind: 'bore', key: 'g', icon: 'bore', label: 'Bore' },
    help: 'Bores on the axis from either end, in one or several diameters.',
  },
  {
    ...{ kind: 'mirror', key: 'z', icon: 'mirror', label: 'Mirror' },
    help: 'Mirrors the body, or steps of it, about a plane square to the axis or through it.',
  },
  {
    ...{ kind: 'repeat', key: 'x', icon: 'repeat', label: 'Repeat steps' },
    help: 'Does earlier steps again along the axis, by number and pitch.',
  },
  {
    ...{ kind: 'length', key: 'c', icon: 'length', label: 'Overall length' },
    help: 'Cuts an end back, or draws it out, to a length.',
  },
]

/** What one does with the route: new steps, and those that are there. */
export function stepActions(): Action[] {
  const parts = usePartStore()
  const board = useBoardStore()
  const route = useRouteStore()
  /** Turned already, or square to the axis: not to be turned now. */
  const isTurned = (): boolean =>
    isEndSketch(board.sketch) ||
    parts.part?.route.some((s) => usesSketch(s) && s.sketch === board.sketch.id) === true
  const opened = (): number => parts.part?.route.findIndex((s) => s.id === board.stepId) ?? -1
  const move = (by: number): void => {
    if (board.stepId !== undefined) parts.run(moveStep(board.stepId, opened() + by))
  }
  return [
    {
      id: 'revolve',
      label: 'Revolve',
      help: 'Turns the closed profile about the axis; it joins the body it touches.',
      key: 'r',
      icon: 'revolve',
      pages: ['turn'],
      enabled: () => !isTurned(),
      run: () => makeStep('revolve'),
    },
    {
      id: 'revolveCut',
      label: 'Revolve cut',
      help: 'Turns the closed profile and takes it away from the body it lies in.',
      key: 'e',
      icon: 'revolveCut',
      pages: ['turn'],
      enabled: () => !isTurned() && hasMaterial(),
      run: revolveCut,
    },
    {
      id: 'profile',
      label: 'New profile',
      help: 'Begins another half-section, to add, to cut or for another body.',
      key: 't',
      icon: 'profile',
      pages: ['turn'],
      run: () => {
        if (beginSketch('half')) board.useTool('chain')
      },
    },
    ...STEPS.map(({ kind, ...rest }): Action => ({
      id: `step:${kind}`,
      ...rest,
      pages: ['turn'],
      enabled: () => (kind === 'wall' ? !isTurned() : hasMaterial()),
      run: () => makeStep(kind),
    })),
    ...millActions(),
    {
      id: 'step:centre',
      label: 'Centre hole',
      help: 'Cuts a centre hole of type A, B or R into an end, or says that none may stay.',
      key: 'f',
      icon: 'centreHole',
      pages: ['note'],
      enabled: hasMaterial,
      run: () => makeStep('centre'),
    },
    {
      id: 'step:ridges',
      label: 'Ridges',
      help: 'Raises ridges on a face, or sinks them into it: round, vee or wave, spaced along its outline.',
      enabled: hasMaterial,
      run: standRidges,
    },
    {
      id: 'step:move',
      label: 'Move or copy body',
      help: 'Moves a body along the axis, turns it about the axis, or puts a copy there.',
      enabled: hasMaterial,
      run: moveBody,
    },
    {
      id: 'step:combine',
      label: 'Join bodies',
      help: 'Joins two bodies, cuts one from the other, or keeps what they have in common.',
      enabled: hasMaterial,
      run: joinBodies,
    },
    {
      id: 'aside',
      label: 'Set aside',
      help: 'Lets the opened step do nothing while it keeps its place, or takes it up again.',
      key: 'v',
      icon: 'aside',
      pages: ['turn', 'mill'],
      enabled: () => opened() >= 0,
      run: () => {
        const step = parts.part?.route[opened()]
        if (step) parts.run(setAside(step.id, !step.aside))
      },
    },
    {
      id: 'stepUp',
      label: 'Step earlier',
      help: 'Moves the opened step one place up the route.',
      key: 'Alt+ArrowUp',
      enabled: () => opened() > 0,
      run: () => move(-1),
    },
    {
      id: 'stepDown',
      label: 'Step later',
      help: 'Moves the opened step one place down the route.',
      key: 'Alt+ArrowDown',
      enabled: () => opened() >= 0,
      run: () => move(1),
    },
    {
      id: 'playRoute',
      label: 'Play the route',
      help: 'Shows the steps one after another with their sizes, and what each did; again stops it.',
      key: 'p',
      icon: 'play',
      enabled: () => (parts.part?.route.length ?? 0) > 0,
      run: () => (route.playing = !route.playing),
    },
    {
      id: 'runBack',
      label: 'One step back',
      help: 'Shows the route up to one step fewer.',
      key: ',',
      enabled: () => (parts.part?.route.length ?? 0) > 0,
      run: () => route.runBy(-1),
    },
    {
      id: 'runOn',
      label: 'One step on',
      help: 'Shows the route up to one step more.',
      key: '.',
      enabled: () => (parts.part?.route.length ?? 0) > 0,
      run: () => route.runBy(1),
    },
    {
      id: 'duplicateStep',
      label: 'Duplicate step',
      help: 'Puts a copy of the opened step behind it.',
      key: 'Ctrl+d',
      enabled: () => opened() >= 0,
      run: () => {
        if (board.stepId !== undefined && parts.run(duplicateStep(board.stepId))) {
          board.stepId = parts.part?.route[opened() + 1]?.id
        }
      },
    },
  ]
}
