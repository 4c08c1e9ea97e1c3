import { vec } from '../../../geometry'
import type { BoreStep } from '../../../part'
import type { Asked, Shape } from '../asked'
import { longestOf, placeOn, reachOf, type StepAsks } from '../kind'

export const bore: StepAsks<BoreStep> = {
  idle: ({ tip, sinkDiameter, upTo, parts }) => [
    ...(tip === 'flat' ? ['tipAngle'] : []),
    ...(sinkDiameter.trim() === '' ? ['sinkAngle'] : []),
    ...(upTo === '' ? [] : [`parts/${parts.length - 1}/depth`]),
  ],
  asks: (step, view) => {
    const parts = step.parts.flatMap((part, i): Asked[] => {
      const walls = view.faces(`wall${i + 1}`)
      const reach = reachOf(walls)
      const wall = longestOf(walls)
      if (!reach || !wall) return []
      const [left, right] = reach
      const at = vec((left.x + right.x) / 2, left.y)
      const end = step.end === 'left' ? right : left
      const deep = view.value(part.depth) ?? 0
      const depth: Shape = {
        ...{ kind: 'along', inside: true },
        from: vec(end.x + (step.end === 'left' ? -deep : deep), end.y),
        to: end,
      }
      return [
        ...view.size(
          `parts/${i}/diameter`,
          part.diameter,
          { kind: 'across', at, inside: true },
          '⌀',
        ),
        ...view.size(`parts/${i}/depth`, part.depth, depth),
      ]
    })
    const sink = placeOn(view.faces('sink'))
    return [
      ...parts,
      ...view.size(
        'tipAngle',
        step.tip === 'flat' ? '' : step.tipAngle,
        placeOn(view.faces(`floor${step.parts.length}`)),
        '',
        'angle',
      ),
      ...(step.sinkDiameter.trim() === ''
        ? []
        : view.call(
            ['sinkDiameter', 'sinkAngle'],
            [view.text(step.sinkDiameter, '⌵ ⌀'), view.text(step.sinkAngle, '', 'angle')],
            sink,
          )),
    ]
  },
}
