import { unitScale } from '@lathica/core/units'
import { edgesToggled, meetingKey } from '@lathica/core/names'
import { edgeKey } from '@lathica/core/section'
import type {
  ChamferStep,
  CornerPick,
  FilletStep,
  NewStep,
  ShellStep,
  Step,
} from '@lathica/core/part'
import type { BodyState, OfferedKind } from '@lathica/core/route'
import {
  FULL_WALL,
  addRevolve,
  addStep,
  bodyTouched,
  combineOf,
  changeStep,
  nextStepId,
  offeredGroove,
  offeredRidges,
  offeredStep,
  revolveOf,
} from '@lathica/core/edit'
import { tellProblem } from '../notices'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'

/** Steps that are begun without more being said. */
export type TurnedKind = OfferedKind | 'revolve' | 'wall' | 'groove'

/** Begins a step of a kind: puts it in behind what is shown, opens its card, asks for its picks. */
export function makeStep(kind: TurnedKind): void {
  switch (kind) {
    case 'revolve':
      revolve()
      return
    case 'wall':
      wall()
      return
    case 'groove':
      groove()
      return
    case 'fillet':
    case 'chamfer':
      finishCorners(kind)
      return
    default:
      offer(kind)
  }
}

/** Whether a body has material that steps work on; meshes to go by have none. */
export const hasSolid = (b: BodyState): boolean => !b.mesh && b.section.regions.length > 0

/** Whether there is material for steps that work on a body. */
export const hasMaterial = (): boolean =>
  useRouteStore().visible.some((b) => !b.reference && hasSolid(b))

/** Turns the profile in hand: into the body it touches, or one of its own. */
function revolve(): void {
  const parts = usePartStore()
  const board = useBoardStore()
  const route = useRouteStore()
  const section = board.sketchState?.profile.section
  const touched = section && bodyTouched(section, route.bodies, 'add')
  const done =
    touched === undefined
      ? parts.run(addRevolve(board.sketch.id))
      : putStep(revolveOf(board.sketch.id, touched, 'add'))
  if (done && touched === undefined) open(parts.part?.route.at(-1)?.id)
  if (done) board.fit()
}

/** Turns the profile in hand and takes it away from the body it lies in. */
export function revolveCut(): void {
  const board = useBoardStore()
  const route = useRouteStore()
  const section = board.sketchState?.profile.section
  if (!section || section.regions.length === 0) {
    const mend = 'Draw one that closes, over what is to be taken away.'
    tellProblem({ message: 'The profile encloses nothing yet.', mend })
    return
  }
  const body = bodyTouched(section, route.bodies, 'cut')
  if (body === undefined) {
    const mend = 'Draw it over the section, or turn it to add material.'
    tellProblem({ message: 'The profile lies clear of every body.', mend })
    return
  }
  putStep(revolveOf(board.sketch.id, body, 'cut'))
}

function wall(): void {
  const parts = usePartStore()
  const board = useBoardStore()
  const { part } = parts
  if (!part) return
  const used = new Set(part.route.flatMap((s) => ('body' in s ? [s.body] : [])))
  const body = part.bodies.find((b) => !used.has(b.id))?.id ?? part.bodies[0]?.id ?? ''
  const length = Math.max(...board.sketch.points.map((p) => Math.abs(p.x) + Math.abs(p.y)), 10)
  const own = length / 40 / unitScale('length', part.units)
  const thickness = String(Number(own.toPrecision(1)))
  if (
    putStep({
      ...{ kind: 'wall', sketch: board.sketch.id, side: 'outside', thickness, inner: thickness },
      ...{ corners: 'sharp', ends: 'flat', effect: 'add', body, ...FULL_WALL },
    })
  ) {
    board.fit()
  }
}

function groove(): void {
  const parts = usePartStore()
  const route = useRouteStore()
  const { bodies } = route
  useBoardStore().startAsking({
    hint: 'Click the cylinder, cone or face that gets the groove, here or on the solid.',
    accept: 'straight',
    bodies: () => bodies,
    chosen: () => [],
    take({ body, edge }) {
      if (edge) putStep(offeredGroove(body, edge, 'rectangular', parts.units))
    },
  })
}

/** Ridges stand on the face that is clicked. */
export function standRidges(): void {
  const parts = usePartStore()
  const { bodies } = useRouteStore()
  useBoardStore().startAsking({
    hint: 'Click the face that gets ridges, here or on the solid; a curved one will do.',
    accept: 'face',
    bodies: () => bodies,
    chosen: () => [],
    take({ body, edge }) {
      const section = bodies.find((b) => b.bodyId === body)?.section
      if (edge && section) putStep(offeredRidges(body, edge, section, parts.units))
    },
  })
}

/** The first corner makes the step; more corners join it until the tool is laid down. */
function finishCorners(kind: 'fillet' | 'chamfer'): void {
  const route = useRouteStore()
  const parts = usePartStore()
  const { bodies } = route
  const word = kind === 'fillet' ? 'round' : 'bevel'
  useBoardStore().startAsking({
    hint: `Click an edge to ${word} it; Esc leaves.`,
    accept: 'corner',
    bodies: () => bodies,
    chosen: () => [],
    rims: true,
    take({ body, key, rim }) {
      const section = bodies.find((b) => b.bodyId === body)?.section ?? { regions: [] }
      const step = offeredStep(kind, body, section, undefined, parts.units)
      if (step.kind !== 'fillet' && step.kind !== 'chamfer') return
      const pick: CornerPick = rim
        ? { kind: 'solid', edges: [key] }
        : { kind: 'corners', corners: [key] }
      const sets = step.sets.map((set) => ({ ...set, pick }))
      if (putStep({ ...step, sets } as NewStep)) askForCorners(useBoardStore().stepId ?? '', 0)
    },
  })
}

function offer(kind: Exclude<OfferedKind, 'fillet' | 'chamfer'>): void {
  const route = useRouteStore()
  const parts = usePartStore()
  const own = route.openStep && 'body' in route.openStep ? route.openStep.body : undefined
  const solid = route.visible.filter(hasSolid)
  const target = solid.find((b) => b.bodyId === own) ?? solid[0]
  if (!target) return
  const before = parts.part?.route[route.shownCount - 1]?.id
  if (!putStep(offeredStep(kind, target.bodyId, target.section, before, parts.units))) return
  if (kind === 'shell') askForOpenFaces(useBoardStore().stepId ?? '')
}

/** Moves a body, or copies it; the one whose card is open, or the first. */
export function moveBody(): void {
  const route = useRouteStore()
  const solid = route.visible.filter(hasSolid)
  const target = solid.find((b) => b.bodyId === route.bodyId) ?? solid[0]
  if (!target) return
  const { bodyId, section } = target
  putStep(offeredStep('move', bodyId, section, undefined, usePartStore().units))
}

/** Joins the body whose card is open, or the first, with another one. */
export function joinBodies(): void {
  const route = useRouteStore()
  const solid = route.bodies.filter(hasSolid).map((b) => b.bodyId)
  const own = solid.find((id) => id === route.bodyId) ?? solid[0]
  const other = solid.find((id) => id !== own)
  if (own === undefined || other === undefined) {
    const mend = 'Turn a profile into a body of its own, or copy one, first.'
    tellProblem({ message: 'There is no second body to join.', mend })
    return
  }
  putStep(combineOf(own, other, 'add'))
}

/** Puts a step in behind what is shown and opens it. */
export function putStep(step: NewStep): boolean {
  const parts = usePartStore()
  const route = useRouteStore()
  if (!parts.part) return false
  const id = nextStepId(parts.part)
  const at = route.shownCount
  if (!parts.run(addStep(step, at))) return false
  if (route.runTo !== undefined) route.runTo = Math.max(route.runTo, at) + 1
  open(id)
  return true
}

function open(id: string | undefined): void {
  const board = useBoardStore()
  board.useTool('pick')
  board.picks = []
  board.stepId = id
  useRouteStore().bodyId = undefined
  useRouteStore().fresh = id
}

/** Lets clicks choose and let go of the corners of a set of a step. */
export function askForCorners(stepId: string, set: number): void {
  const parts = usePartStore()
  const route = useRouteStore()
  const step = (): FilletStep | ChamferStep | undefined => {
    const found = parts.part?.route.find((s) => s.id === stepId)
    return found?.kind === 'fillet' || found?.kind === 'chamfer' ? found : undefined
  }
  const chosen = (): readonly string[] => {
    const pick = step()?.sets[set]?.pick
    if (pick?.kind === 'solid') return pick.edges
    return pick?.kind === 'corners' ? pick.corners : []
  }
  useBoardStore().startAsking({
    hint: 'Click edges to choose them or let them go, on the board or the solid, with Shift one stretch of an edge; Enter is done.',
    accept: 'corner',
    bodies: () => bodiesOf(route.before(stepId), step()?.body),
    chosen,
    rims: true,
    take({ key, rim, corner, stretches = [] }) {
      const before = step()?.sets[set]?.pick
      const onSolid = rim !== undefined || before?.kind === 'solid'
      if (onSolid && before?.kind === 'corners' && before.corners.length > 0) {
        const mend = 'Take the circular edges out, or finish these in a step of their own.'
        tellProblem({ message: 'Edges of holes, flats and slots go by themselves.', mend })
        return
      }
      // Beside edges of the solid a circular edge is told by its faces too.
      const faces = corner && [corner.arriving.name, corner.leaving.name].map(edgeKey)
      const own = onSolid && faces ? meetingKey(faces[0] ?? '', faces[1] ?? '') : key
      const keys = onSolid ? edgesToggled(chosen(), own, stretches) : toggled(chosen(), own)
      parts.run(
        changeStep(stepId, (s) => {
          if (s.kind !== 'fillet' && s.kind !== 'chamfer') return s
          const pick: CornerPick = onSolid
            ? { kind: 'solid', edges: keys }
            : { kind: 'corners', corners: keys }
          const sets = s.sets.map((x, i) => (i === set ? { ...x, pick } : x))
          return { ...s, sets } as Step
        }),
      )
    },
  })
}

/** Lets clicks choose the faces that a shell leaves open. */
export function askForOpenFaces(stepId: string): void {
  const parts = usePartStore()
  const route = useRouteStore()
  const step = (): ShellStep | undefined => {
    const found = parts.part?.route.find((s) => s.id === stepId)
    return found?.kind === 'shell' ? found : undefined
  }
  const chosen = (): readonly string[] => step()?.open ?? []
  useBoardStore().startAsking({
    hint: 'Open faces: click faces on the board or the solid; Enter is done.',
    accept: 'face',
    bodies: () => bodiesOf(route.before(stepId), step()?.body),
    chosen,
    take({ key }) {
      const next = toggled(chosen(), key)
      parts.run(changeStep(stepId, (s) => (s.kind === 'shell' ? { ...s, open: next } : s)))
    },
  })
}

const bodiesOf = (all: readonly BodyState[], body: string | undefined): readonly BodyState[] =>
  all.filter((b) => b.bodyId === body)

const toggled = (keys: readonly string[], key: string): readonly string[] =>
  keys.includes(key) ? keys.filter((k) => k !== key) : [...keys, key]
