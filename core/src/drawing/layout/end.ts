import { vec, type Vec } from '../../geometry'
import type { SheetSetup } from '../../part'
import type { PartState } from '../../route'
import { saidText, type Asked } from '../asked'
import type { SeenLines } from '../seen'
import { endView, type Shown } from '../views/turned'
import type { AlongSetting } from './along'
import { boxOf, type Sheeted } from './arrange'
import { textContent } from './contents'
import { layLeader, type LeaderAsk } from './leaders'
import type { Placed } from './marks'
import { Space } from './space'

/** From which ends the part is drawn. */
export function endsFor(
  state: PartState,
  { ends }: SheetSetup,
  asked: readonly Asked[],
): ('left' | 'right')[] {
  if (ends === 'none') return []
  if (ends === 'both') return ['left', 'right']
  if (ends !== 'auto') return [ends]
  const wanted = new Set(asked.flatMap(({ shape }) => (shape.kind === 'end' ? [shape.from] : [])))
  const isLifted = state.bodies.some((b) => b.plan && !b.reference)
  return wanted.size > 0 ? [...wanted].sort() : isLifted ? ['left'] : []
}

/** The view from an end with its call-outs. */
export function endSheet(
  bodies: readonly Shown[],
  asked: readonly Asked[],
  from: 'left' | 'right',
  { by, style, moved }: AlongSetting,
  seen: SeenLines,
): Sheeted & { readonly left: readonly string[] } {
  const view = endView(bodies, by, from, seen[from])
  const space = new Space()
  space.addOutline(view.outlines)
  const placed: Placed[] = []
  const left: string[] = []
  const isInside = (p: Vec): boolean => Math.hypot(p.x, p.y) < view.radius
  for (const one of asked) {
    if (one.shape.kind !== 'end' || one.shape.from !== from) continue
    const ask: LeaderAsk = {
      ...{
        id: one.id,
        said: one.lines.map(saidText).join(', '),
        end: 'arrow',
        moved: moved.get(one.id),
      },
      content: textContent(one.lines, style),
      anchors: [{ at: vec(one.shape.at.x * by, one.shape.at.y * by), out: one.shape.out }],
    }
    const made = layLeader(ask, isInside, space, style)
    if (!made) {
      left.push(one.id)
      continue
    }
    space.addLabels(made.labels)
    space.addLines(made.lines)
    placed.push(made)
  }
  return { view, extra: [], placed, left, box: boxOf(view, placed) }
}
