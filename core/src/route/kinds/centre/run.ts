import { arc, line, vec, type Piece, type Vec } from '../../../geometry'
import type { CentreStep } from '../../../part'
import { fail, succeed, type Result } from '../../../result'
import { combine, edgeKey, extentOf, profileOf, type SectionEdge } from '../../../section'
import { AXIS_ID } from '../../../sketch'
import {
  CENTRE_CONE,
  CENTRE_GUARD,
  centreHole,
  centreWords,
  type CentreHole,
  type CentreType,
} from '../../../standards'
import { endRadius } from '../../steps/ends'
import {
  changed,
  material,
  notSound,
  told,
  type Outcome,
  type StepContext,
} from '../../steps/context'

/** Half the angle of a drill's tip, which ends the pilot. */
const TIP = Math.PI / 3

const REMAINS = { stays: '', may: ', may stay', goes: ', must not stay' }

/** A centre hole in an end (ISO 6411); one that must not stay is told, and not cut. */
export function centre(step: CentreStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const hole = centreHole(Number(step.pilot))
  if (!hole) {
    return fail('centre.size', 'There is no such centre hole.', 'Choose a pilot in the step card.')
  }
  const [from, to] = extentOf(before.value)
  const [mouth, way] = step.end === 'left' ? [from, 1] : [to, -1]
  const room = endRadius(before.value, step.end)
  const wide = step.type === 'B' ? hole.guard : hole.cone
  if (room === 0) {
    return fail(
      'centre.end',
      'This end of the part is not square to the axis.',
      'Choose the other end, or cut this one square.',
    )
  }
  if (wide > 2 * room) {
    return fail(
      'centre.wide',
      `The centre hole is ⌀${told(context, wide)} wide, and its end ⌀${told(context, 2 * room)}.`,
      'Choose a smaller pilot.',
    )
  }
  const words = centreWords(step.type, hole) + REMAINS[step.remains]
  const call = { body: step.body, at: vec(mouth, 0), out: vec(-way, 0), words }
  if (step.remains === 'goes') {
    return succeed({ sections: new Map(), notes: [], told: { calls: [call] } })
  }
  const place = (p: Vec): Vec => vec(mouth + way * p.x, p.y)
  const made = (what: string): SectionEdge['name'] => ({
    step: step.id,
    entity: what,
    role: 'made',
  })
  const outline = outlineOf(step.type, hole, place, way > 0)
  const last = outline.at(-1)?.piece.to ?? place(vec(0, 0))
  const edges: SectionEdge[] = [
    { piece: line(place(vec(0, 0)), place(vec(0, wide / 2))), name: made('mouth') },
    ...outline.map(({ piece, what }) => ({ piece, name: made(what) })),
    {
      piece: line(last, place(vec(0, 0))),
      name: { step: step.id, entity: AXIS_ID, role: 'axis' },
    },
  ]
  const tool = profileOf(edges, step.id).section
  if (tool.regions.length === 0) return notSound
  const after = combine(before.value, tool, 'cut')
  const outcome = changed(context, step.body, before.value, after, {
    ...{ section: tool, effect: 'cut', body: step.body },
  })
  if (!outcome.ok) return outcome
  const silent = ['guard', 'cone', 'arc', 'tip'].map((what) => [edgeKey(made(what)), ''] as const)
  const edgeWords = new Map([...silent, [edgeKey(made('pilot')), words] as const])
  return succeed({ ...outcome.value, told: { calls: [call], edges: edgeWords } })
}

/** The wall of a centre hole from its mouth to the axis; x is the depth before it is placed. */
function outlineOf(
  type: CentreType,
  hole: CentreHole,
  place: (p: Vec) => Vec,
  inwards: boolean,
): readonly { readonly piece: Piece; readonly what: string }[] {
  const [pilot, cone, guard] = [hole.pilot / 2, hole.cone / 2, hole.guard / 2]
  const straight = (a: Vec, b: Vec, what: string) => ({ piece: line(place(a), place(b)), what })
  const end = (from: Vec, to: number) => {
    const low = vec(to, pilot)
    return [straight(from, low, 'pilot'), straight(low, vec(to + pilot / Math.tan(TIP), 0), 'tip')]
  }
  if (type === 'R') {
    // The arc touches a 60° cone where it is half way between the pilot and its greatest diameter.
    const high = (pilot + cone) / 2 + hole.arc * Math.cos(CENTRE_CONE)
    const deep = Math.sqrt(hole.arc ** 2 - (high - cone) ** 2)
    const low = deep - Math.sqrt(hole.arc ** 2 - (high - pilot) ** 2)
    const [a, b] = [vec(0, cone), vec(low, pilot)]
    return [
      { piece: arc(place(a), place(b), place(vec(deep, high)), inwards), what: 'arc' },
      ...end(b, hole.depth),
    ]
  }
  const guarded = type === 'B' ? (guard - cone) / Math.tan(CENTRE_GUARD) : 0
  const [a, b] = [vec(guarded, cone), vec(guarded + (cone - pilot) / Math.tan(CENTRE_CONE), pilot)]
  return [
    ...(type === 'B' ? [straight(vec(0, guard), a, 'guard')] : []),
    straight(a, b, 'cone'),
    ...end(b, b.x + hole.pilotDepth),
  ]
}
