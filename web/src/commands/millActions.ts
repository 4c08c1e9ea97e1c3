import type { UnitSettings } from '@lathica/core/units'
import { leftNormal } from '@lathica/core/geometry'
import { holePlaces, isAcross, isEndSketch } from '@lathica/core/sketch'
import {
  EMPTY_SECTION,
  edgeKey,
  edgesOf,
  type Section,
  type SectionEdge,
} from '@lathica/core/section'
import { planeCalled } from '@lathica/core/solid'
import { usesSketch, type NewStep, type SlotStep } from '@lathica/core/part'
import type { BodyState } from '@lathica/core/route'
import {
  bodyTouched,
  endExtrudeOf,
  extrudeOf,
  offeredCrossHole,
  offeredHoleAt,
  offeredHoles,
  offeredSlot,
  offeredSlotAcross,
  offeredSweep,
  sketchHoles,
} from '@lathica/core/edit'
import type { Accept, SectionRef } from '../board/refs'
import { tellProblem } from '../notices'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import type { Action } from './action'
import { beginSketch } from './beginSketch'
import { hasMaterial, hasSolid, makeStep, putStep } from './makeStep'

/** What a step is like in a face of the section. */
type Offer = (body: string, edge: SectionEdge, section: Section, units: UnitSettings) => NewStep
/** What it is like in a face that no full turn made, where it can be in one. */
type SolidOffer = (face: SectionRef, section: Section, units: UnitSettings) => NewStep

/** Asks for the face a step begins in, and puts the step in with the first one that is clicked. */
function inFace(accept: Accept, hint: string, offer: Offer, onSolid?: SolidOffer): void {
  const { bodies } = useRouteStore()
  useBoardStore().startAsking({
    hint,
    accept,
    bodies: () => bodies,
    chosen: () => [],
    ...(onSolid ? { solids: true } : {}),
    take(face) {
      if (face.edge || isSquare(face, bodies)) putInFace(face, offer, onSolid)
    },
  })
}

function putInFace(face: SectionRef, offer: Offer, onSolid?: SolidOffer): void {
  const { units } = usePartStore()
  const { bodies } = useRouteStore()
  const section = bodies.find((b) => b.bodyId === face.body)?.section ?? EMPTY_SECTION
  if (face.edge) putStep(offer(face.body, face.edge, section, units))
  else if (onSolid) putStep(onSolid(face, section, units))
}

/** Whether a face lies square to the axis; says so where it does not. */
function isSquare(face: SectionRef, bodies: readonly BodyState[]): boolean {
  const square = materialBehind(face, bodies) !== undefined
  if (!square) {
    tellProblem({
      message: 'This face does not lie square to the axis.',
      mend: 'Click an end face, a shoulder, or the floor of a pocket.',
    })
  }
  return square
}

const slotIn =
  (form: SlotStep['form']): Offer =>
  (body, edge, _, units) =>
    offeredSlot(body, edge, form, units)

const slotAcross: SolidOffer = ({ body, key }, section, units) =>
  offeredSlotAcross(body, key, section, units)

const holeAt: SolidOffer = ({ body, key, hitAt }, section, units) =>
  offeredHoleAt(body, key, hitAt ?? { x: 0, y: 0, z: 0 }, section, units)

/** Begins a sketch across the axis, on the face that is clicked. */
export function endSketch(): void {
  const board = useBoardStore()
  const { bodies } = useRouteStore()
  board.startAsking({
    hint: 'Click the end face or shoulder to draw on, or a plane face of the solid.',
    accept: 'plane',
    solids: true,
    bodies: () => bodies,
    chosen: () => [],
    take(face) {
      board.useTool('pick')
      if (!isSquare(face, bodies)) return
      const into = materialBehind(face, bodies) ?? 1
      // It is seen from the side that its face looks to.
      if (beginSketch(into > 0 ? 'lesserEnd' : 'end')) board.endFaces.set(board.sketch.id, face)
    },
  })
}

/** Which way along the axis material lies behind a face; undefined where it is not square to that. */
function materialBehind(face: SectionRef, bodies: readonly BodyState[]): number | undefined {
  if (face.edge) return leftNormal(face.edge.piece, 0.5).x
  const plan = bodies.find((b) => b.bodyId === face.body)?.plan
  const plane = plan && planeCalled(plan, face.key)
  return plane && Math.abs(plane.into.z) > 1 - 1e-9 ? plane.into.z : undefined
}

/** Makes a step in the face that the end sketch in hand was begun on, or in one that is clicked. */
function inEndFace(hint: string, offer: Offer, onSolid: SolidOffer): void {
  const board = useBoardStore()
  const { bodies } = useRouteStore()
  const begun = board.endFaces.get(board.sketch.id)
  const section = bodies.find((b) => b.bodyId === begun?.body)?.section ?? EMPTY_SECTION
  // The face may have changed since, or be gone.
  const edge = begun && edgesOf(section).find((e) => edgeKey(e.name) === begun.key)
  if (begun && edge) putInFace({ ...begun, edge }, offer, onSolid)
  else if (begun?.solidFace !== undefined && materialBehind(begun, bodies) !== undefined) {
    putInFace(begun, offer, onSolid)
  } else inFace('plane', hint, offer, onSolid)
}

/** Drills holes at the places of the end sketch in hand, or in a face that is clicked. */
export function drillHoles(): void {
  const { sketch } = useBoardStore()
  if (isEndSketch(sketch) && holePlaces(sketch).length > 0) {
    inEndFace(
      'Click the face that gets the holes of this sketch.',
      (...offered) => sketchHoles(sketch.id, offeredHoles(...offered)),
      (...offered) => sketchHoles(sketch.id, holeAt(...offered)),
    )
    return
  }
  const hint = 'Click the end face or shoulder that gets the holes, or a plane face of the solid.'
  inFace('plane', hint, offeredHoles, holeAt)
}

/** Draws the profile in hand out square to its plane. */
export function extrude(effect: 'add' | 'cut'): void {
  const parts = usePartStore()
  const board = useBoardStore()
  const route = useRouteStore()
  const section = board.sketchState?.profile.section
  if (!section || section.regions.length === 0) {
    tellProblem({ message: 'The profile encloses nothing yet.', mend: 'Draw one that closes.' })
    return
  }
  const { id, plane } = board.sketch
  if (isAcross(plane)) {
    const out = ({ body, key }: SectionRef): void => {
      const section = route.bodies.find((b) => b.bodyId === body)?.section ?? EMPTY_SECTION
      putStep(endExtrudeOf(id, body, effect, key, section, parts.units))
    }
    const face = board.endFaces.get(id)
    if (face) out(face)
    else {
      board.startAsking({
        ...{ hint: 'Click the face that this sketch lies on.', accept: 'plane', solids: true },
        ...{ bodies: () => route.bodies, chosen: () => [], take: out },
      })
    }
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
  const target = route.visible.find(hasSolid)
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
  return (
    board.sketch.plane === 'half' &&
    !used &&
    board.sketch.entities.some((e) => e.role === 'outline') &&
    hasMaterial()
  )
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
    action(
      ...(['w', 'holes', 'Holes', 'Drills holes beside the axis into a face.'] as const),
      drillHoles,
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
      inFace('plane', 'Click the face that gets the slot.', slotIn('end'), slotAcross),
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
    action(
      ...(['c', 'endSketch', 'End sketch', 'Draws on an end face, across the axis.'] as const),
      endSketch,
    ),
    action('z', 'around', 'Round the axis', 'Does earlier steps again round the axis.', () =>
      makeStep('around'),
    ),
  ]
}
