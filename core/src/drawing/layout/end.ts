import { vec, type Vec } from '../../geometry'
import type { SheetSetup } from '../../part'
import type { PartState } from '../../route'
import type { Asked } from '../asked'
import type { Item } from '../items'
import type { Seen } from '../seen'
import { endView, type Shown } from '../views/turned'
import type { AlongSetting } from './along'
import { boxOf, type Sheeted } from './arrange'
import { callOf, Laying } from './laying'

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
  const wanted = new Set(asked.flatMap(({ shape }) => (shape.kind === 'end' ? [shape.from] : [])))
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
  for (const one of asked) {
    const { shape } = one
    if (shape.kind !== 'end' || shape.from !== from) continue
    const at = vec(shape.at.x * by, shape.at.y * by)
    laying.lead(callOf(one, style, moved, [{ at, out: shape.out }]))
  }
  laying.finish()
  const { placed, left } = laying
  return { view, extra, placed, left, box: boxOf(view, placed) }
}
