import {
  bodyTouched,
  edgesOf,
  extrudeOf,
  offeredCrossHole,
  offeredHoles,
  offeredSlot,
  offeredSweep,
  usesSketch,
  type NewStep,
  type Section,
  type SectionEdge,
  type SlotStep,
  type UnitSettings,
} from '@lathica/core'
import type { Accept } from '../board/refs'
import { tellProblem } from '../notices'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import type { Action } from './action'
import { hasMaterial, makeStep, putStep } from './makeStep'

type Offer = (body: string, edge: SectionEdge, section: Section, units: UnitSettings) => NewStep

/** Asks for the face a step begins in, and puts the step in with the first one that is clicked. */
function inFace(accept: Accept, hint: string, offer: Offer): void {
  const parts = usePartStore()
  const { bodies } = useRouteStore()
  useBoardStore().startAsking({
    hint,
    accept,
    bodies: () => bodies,
    chosen: () => [],
    take({ body, edge }) {
      const section = bodies.find((b) => b.bodyId === body)?.section
      if (edge && section) putStep(offer(body, edge, section, parts.units))
    },
  })
}

const slotIn =
  (form: SlotStep['form']): Offer =>
  (body, edge, _, units) =>
    offeredSlot(body, edge, form, units)

/** Draws the profile in hand out square to its plane. */
function extrude(effect: 'add' | 'cut'): void {
  const parts = usePartStore()
  const board = useBoardStore()
  const route = useRouteStore()
  const section = board.sketchState?.profile.section
  if (!section || section.regions.length === 0) {
    tellProblem({ message: 'The profile encloses nothing yet.', mend: 'Draw one that closes.' })
    return
  }
  const touched = bodyTouched(section, route.bodies, effect)
  const body = touched ?? parts.bodies[0]?.id ?? ''
  if (putStep(extrudeOf(board.sketch.id, body, effect, section, parts.units))) board.fit()
}

/** Carries a rod along the open chain in hand; a chain that ends on the axis stands on both sides. */
function sweep(): void {
  const parts = usePartStore()
  const board = useBoardStore()
  const route = useRouteStore()
  const target = route.visible.find((b) => b.section.regions.length > 0)
  const { points } = board.sketch
  const ends = points.filter((p) => Math.abs(p.y) < 1e-6).length
  const body = target?.bodyId ?? parts.bodies[0]?.id ?? ''
  const section = target?.section ?? { regions: [] }
  if (section.regions.length === 0) return
  if (putStep(offeredSweep(board.sketch.id, body, section, ends > 0, parts.units))) board.fit()
}

const isChain = (): boolean => {
  const board = useBoardStore()
  const used = usePartStore().route.some((s) => usesSketch(s) && s.sketch === board.sketch.id)
  return !used && board.sketch.entities.some((e) => e.role === 'outline') && hasMaterial()
}

const isDrawn = (): boolean => {
  const section = useBoardStore().sketchState?.profile.section
  return section !== undefined && edgesOf(section).length > 0
}

/** What is drilled and milled: holes, flats, slots, and profiles that are drawn out. */
export function millActions(): Action[] {
  const action = (
    key: string,
    icon: Action['icon'] & string,
    label: string,
    help: string,
    run: () => void,
    enabled: () => boolean = hasMaterial,
  ): Action => ({ id: `mill:${icon}`, label, help, key, icon, pages: ['mill'], enabled, run })
  return [
    action('w', 'holes', 'Holes', 'Drills holes beside the axis into a face that is clicked.', () =>
      inFace('plane', 'Click the end face or shoulder that gets the holes.', offeredHoles),
    ),
    action('e', 'crossHole', 'Cross hole', 'Drills across the axis into a cylinder.', () =>
      inFace('straight', 'Click the cylinder or cone that gets the hole.', offeredCrossHole),
    ),
    action('r', 'flats', 'Flats', 'Mills plane faces along the axis, for spanners and pins.', () =>
      makeStep('flats'),
    ),
    action('t', 'keyway', 'Keyway', 'Mills a keyway, sized by the shaft it is in.', () =>
      inFace('straight', 'Click the cylinder that gets the keyway.', slotIn('keyway')),
    ),
    action('a', 'endSlot', 'End slot', 'Mills a slot across an end face that is clicked.', () =>
      inFace('plane', 'Click the face that gets the slot.', slotIn('end')),
    ),
    action('s', 'halfRound', 'Half-round seat', 'Mills the seat of a half-round key.', () =>
      inFace('straight', 'Click the cylinder that gets the seat.', slotIn('woodruff')),
    ),
    action(
      ...(['d', 'extrude', 'Extrude', 'Draws the profile out square to its plane.'] as const),
      () => extrude('add'),
      isDrawn,
    ),
    action(
      ...(['f', 'extrudeCut', 'Extrude cut', 'Draws the profile out and takes it away.'] as const),
      () => extrude('cut'),
      () => isDrawn() && hasMaterial(),
    ),
    action(
      ...([
        'x',
        'sweep',
        'Sweep',
        'Carries a rod along an open chain: handles and bails.',
      ] as const),
      sweep,
      () => isChain() && !isDrawn(),
    ),
    action('g', 'halve', 'Halve', 'Cuts the body by a plane along the axis.', () =>
      makeStep('halve'),
    ),
    action('z', 'around', 'Round the axis', 'Does earlier steps again round the axis.', () =>
      makeStep('around'),
    ),
  ]
}
