import { ORIGIN_ID } from '@lathica/core/sketch'
import { createPart, type NewStep, type Part } from '@lathica/core/part'
import { FULL_WALL, addStep, drawDraft } from '@lathica/core/edit'
import { material, profile, run } from './outline'

/** The funnel that fills the ink flask: a stem and a mouth in one free curve, with one wall along both. */
export function inkFunnel(): Part {
  const start = createPart({ name: 'Ink funnel', lie: 'standing', material: material('pmma') })
  const { id } = profile(start)
  const at = (x: number, y: number) => ({ at: { x, y } })
  const along = (a: string, b: string, formula: string) => ({
    offer: { kind: 'axialDistance', a, b } as const,
    formula,
  })
  const across = (point: string, formula: string) => ({
    offer: { kind: 'diameter', point } as const,
    formula,
  })
  const drawnFunnel = run(
    start,
    drawDraft('draw funnel', id, {
      points: {
        '~stem': at(0.5, 6.5),
        '~neck': at(31, 6.5),
        '~leave': at(50, 7),
        '~come': at(57, 27),
        '~rim': at(61, 43),
      },
      entities: [
        { id: '~line', kind: 'line', from: '~stem', to: '~neck', role: 'outline' },
        {
          ...{ id: '~mouth', kind: 'curve', from: '~neck', to: '~rim', role: 'outline' },
          ...{ fromHandle: '~leave', toHandle: '~come' },
        },
      ],
      ties: [
        { kind: 'axial', line: '~line' },
        { kind: 'inLine', a: '~stem', b: ORIGIN_ID, along: 'radial' },
        { kind: 'tangent', curve: '~mouth', to: '~line' },
      ],
      sizes: [
        across('~neck', '12'),
        along('~stem', '~neck', '30'),
        along('~neck', '~leave', '20'),
        along('~stem', '~rim', '62'),
        across('~rim', '84'),
        along('~come', '~rim', '4'),
        across('~come', '56'),
      ],
    }),
  )
  const wall: NewStep = {
    ...{ kind: 'wall', sketch: id, side: 'middle', thickness: '1.5', inner: '' },
    ...{ corners: 'sharp', ends: 'flat', effect: 'add', body: 'body1' },
    ...FULL_WALL,
  }
  return run(drawnFunnel, addStep(wall))
}
