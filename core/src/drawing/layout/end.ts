import { pointAt, subtract, unit, vec, type Vec } from '../../geometry'
import type { SheetSetup } from '../../part'
import type { PartState } from '../../route'
import { endOf, type Asked } from '../asked'
import type { FlatShape } from '../asked/asked'
import type { Item } from '../items'
import type { Seen } from '../seen'
import { endView } from '../views/turned'
import type { Shown } from '../views/shown'
import type { AlongSetting } from './along'
import { boxOf, type Sheeted } from './arrange'
import { layFlat, type FlatAsk } from './flat'
import { callOf, Laying } from './laying'
import type { LeaderAsk } from './leaders'
import { layAngle, laySlant } from './slants'

/** From which ends the part is drawn. */
export function endsFor(
  state: PartState,
  { ends }: SheetSetup,
  asked: readonly Asked[],
  isHere: (body: string) => boolean,
): ('left' | 'right')[] {
  if (ends === 'none') return []
  if (ends === 'both') return ['left', 'right']
  if (ends !== 'auto') return [ends]
  const wanted = new Set(asked.flatMap(({ shape }) => endOf(shape) ?? []))
  const isLifted = state.bodies.some((b) => b.plan && isHere(b.bodyId))
  return wanted.size > 0 ? [...wanted].sort() : isLifted ? ['left'] : []
}

/** The view from an end with its call-outs. @param extra drawn over it: threads */
export function endSheet(
  bodies: readonly Shown[],
  asked: readonly Asked[],
  from: 'left' | 'right',
  { by, style, moved, badgesFor }: AlongSetting,
  seen: Seen | undefined,
  extra: readonly Item[],
): Sheeted & { readonly left: readonly string[] } {
  const view = endView(bodies, by, from, seen?.lines)
  const isInside = (p: Vec): boolean => Math.hypot(p.x, p.y) < view.radius
  const laying = new Laying(view.outlines, isInside, style, badgesFor)
  const put = (p: Vec): Vec => vec(p.x * by, p.y * by)
  const drawn = asked.flatMap((a) =>
    a.shape.kind === 'onEnd' && a.shape.from === from ? [{ asked: a, of: a.shape.of }] : [],
  )
  const between = drawn.flatMap(({ asked: a, of }): FlatAsk[] =>
    of.kind === 'along' || of.kind === 'radial'
      ? [
          {
            ...{ asked: a, way: of.kind === 'along' ? 'level' : 'upright' },
            ...{ from: put(of.from), to: put(of.to) },
          },
        ]
      : [],
  )
  layFlat(between, view.radius, laying, style, moved)
  const { space } = laying
  for (const { asked: a, of } of drawn) {
    const own = moved.get(a.id)
    if (of.kind === 'slant') {
      laying.take(laySlant(a, put(of.from), put(of.to), isInside, space, style, own), a.id)
    } else if (of.kind === 'angle') {
      const far = of.far?.map((f) => f * by)
      const round = { at: put(of.at), one: of.one, other: of.other, far }
      laying.take(layAngle(a, round, isInside, space, style, own, view.radius), a.id)
    } else if (of.kind === 'radius' || of.kind === 'place') {
      laying.lead(callOf(a, style, moved, anchorsOn(of, put)))
    }
  }
  for (const one of asked) {
    const { shape } = one
    if (shape.kind !== 'end' || shape.from !== from) continue
    laying.lead(callOf(one, style, moved, [{ at: put(shape.at), out: shape.out }]))
  }
  laying.finish()
  const { placed, left } = laying
  return { view, extra, placed, left, box: boxOf(view, placed) }
}

/** Where a leader to what is drawn on an end may point: at an arc from either side of it. */
function anchorsOn(
  of: Extract<FlatShape, { readonly kind: 'radius' | 'place' }>,
  put: (p: Vec) => Vec,
): LeaderAsk['anchors'] {
  if (of.kind === 'place') return [{ at: put(of.at), out: of.out }]
  return [0.5, 0.3, 0.7].flatMap((t) => {
    const at = pointAt(of.arc, t)
    const out = unit(subtract(at, of.arc.centre))
    return [out, vec(-out.x, -out.y)].map((way) => ({ at: put(at), out: way }))
  })
}
