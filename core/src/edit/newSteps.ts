import { hostOf } from '../route'
import { edgeKey, edgesOf, extentOf, type Section, type SectionEdge } from '../section'
import type { NewStep } from './routeEdits'
import type { GrooveForm, StepKind } from '../part'
import { offeredSizes } from '../route'

/** Lengths that a new step begins with, round and in proportion to the body, as formulas in mm. */
function proportion(section: Section, share: number): string {
  const [from, to] = extentOf(section)
  const radius = Math.max(0, ...edgesOf(section).map((e) => Math.max(e.piece.from.y, e.piece.to.y)))
  const wanted = Math.max(0.1, Math.min(to - from, 2 * radius) * share)
  const decade = 10 ** Math.floor(Math.log10(wanted))
  const steps = [1, 2, 5, 10]
  const round = steps.reduce((best, s) =>
    Math.abs(s * decade - wanted) < Math.abs(best * decade - wanted) ? s : best,
  )
  return `${Number((round * decade).toPrecision(3))}mm`
}

/** A step of a kind as it is offered first; what it refers to is picked afterwards. */
export function offeredStep(
  kind: Exclude<StepKind, 'revolve' | 'wall' | 'groove'>,
  body: string,
  section: Section,
  lastStep: string | undefined,
): NewStep {
  const small = proportion(section, 0.05)
  const pick = { kind: 'corners' as const, corners: [] }
  switch (kind) {
    case 'bore':
      return {
        ...{ kind, body, end: 'left', parts: [{ diameter: proportion(section, 0.2), depth: '' }] },
        ...{ upTo: '', tip: 'cone', tipAngle: '118deg', sinkDiameter: '', sinkAngle: '90deg' },
      }
    case 'fillet':
      return { kind, body, sets: [{ pick, radius: small }] }
    case 'chamfer':
      return { kind, body, sets: [{ pick, along: small, across: '', angle: '45deg' }] }
    case 'shell':
      return {
        ...{ kind, body, side: 'inside', thickness: small, open: [], faces: [], corners: 'sharp' },
      }
    case 'mirror':
      return { kind, body, about: '', at: planeAt(section), into: body }
    case 'repeat':
      return {
        ...{ kind, steps: lastStep === undefined ? [] : [lastStep], count: '2' },
        pitch: proportion(section, 0.2),
      }
    case 'length': {
      const [from, to] = extentOf(section)
      return { kind, body, end: 'right', length: `${Number((to - from).toPrecision(9))}mm` }
    }
  }
}

const planeAt = (section: Section): string => `${Number(extentOf(section)[1].toPrecision(9))}mm`

/** A groove of a form in an edge as it is offered first: in the middle of its face. */
export function offeredGroove(body: string, edge: SectionEdge, form: GrooveForm): NewStep {
  return {
    ...{ kind: 'groove', body, on: edgeKey(edge.name), form },
    place: { from: 'middle', second: '', to: 'middle', distance: '' },
    sizes: offeredSizes(form, hostDiameter(edge)),
    ...{ count: '1', pitch: '' },
  }
}

/** The diameter that the sizes of a standard groove go by. */
export function hostDiameter(edge: SectionEdge): number {
  const host = hostOf([edge])
  return 2 * (host?.origin.y ?? edge.piece.from.y)
}
