import { PART_FRAME, line, place, vec } from '@lathica/core/geometry'
import type { Section } from '@lathica/core/section'
import { outlineOf, prismTool, rectangleOf, turnedTool, type SolidPlan } from '@lathica/core/solid'
import type { Kernel } from './kernel'

/** So many lands that turning and weighing are compiled to their best. */
const LANDS = 40

/** A shaft of many short lands. */
const MANY: Section = outlineOf(
  'warm',
  [
    vec(2 * LANDS, 0),
    ...Array.from({ length: LANDS }, (_, i) => LANDS - 1 - i).flatMap((i) => [
      vec(2 * i + 2, 10 + (i % 2)),
      vec(2 * i, 10 + (i % 2)),
    ]),
    vec(0, 0),
  ].map((p, i, all) => ({ piece: line(p, all[(i + 1) % all.length] ?? p), name: `l${i}` })),
)

/** A short shaft with a hole beside its axis and a flat. */
const SMALL: SolidPlan = {
  base: rectangleOf('warm', vec(0, 0), vec(10, 10)),
  ops: [
    {
      ...{ kind: 'combine', step: 'hole', effect: 'cut' },
      tools: [
        turnedTool(rectangleOf('hole', vec(-1, 0), vec(20, 1)), {
          ...PART_FRAME,
          at: place(5, 0, 0),
        }),
      ],
    },
    {
      ...{ kind: 'combine', step: 'flat', effect: 'cut' },
      tools: [prismTool(rectangleOf('flat', vec(9, -20), vec(20, 20)), PART_FRAME, 2, 6)],
    },
  ],
}

/** How often a kernel does a little, until its code is compiled to its best. */
export const WARM_ROUNDS = 3

/**
 * Has a kernel do a little of everything, so that its code is compiled before it is waited for: what
 * it does first takes several times as long as later.
 * @param round from 0; each takes a moment, so that who asks for something meanwhile goes before the next
 */
export function warm(kernel: Kernel, round: number): void {
  kernel.weigh({ base: MANY, ops: [] })
  if (round > 0) kernel.build(SMALL, 0.05)
  // Else the next round would find it done.
  kernel.free()
}
