import type { CornerPick, KnownStep } from '@lathica/core'

type Sized = Exclude<KnownStep, { kind: 'revolve' | 'wall' }>

/** What a step made, in a few words for its row. @param faceOf a face in words, by its key */
export function keySize(step: Sized, faceOf: (key: string) => string): string {
  switch (step.kind) {
    case 'groove': {
      const { width, depth, bottom, radius } = step.sizes
      const deep = bottom ? `⌀${bottom}` : `${depth ?? ''} deep`
      const wide = width ?? (radius ? `R${radius}` : '')
      const many = step.count.trim() === '1' ? '' : `${step.count} × `
      return `${many}${wide ? `${wide}, ` : ''}${deep}, in ${faceOf(step.on)}`
    }
    case 'bore':
      return step.parts
        .map(
          (p) =>
            `⌀${p.diameter}${p.depth === '' ? (step.upTo ? '' : ' through') : ` × ${p.depth}`}`,
        )
        .join(', ')
    case 'fillet':
      return step.sets.map((s) => `R${s.radius} ${cornersIn(s.pick)}`).join(', ')
    case 'chamfer':
      return step.sets
        .map((s) => `${s.along} × ${s.across === '' ? s.angle : s.across} ${cornersIn(s.pick)}`)
        .join(', ')
    case 'shell':
      return `${step.thickness} ${step.side === 'inside' ? 'inwards' : 'outwards'}, ${
        step.open.length === 0 ? 'closed' : `open at ${step.open.map(faceOf).join(', ')}`
      }`
    case 'mirror':
      return `about ${step.about === '' ? `the plane at ${step.at}` : faceOf(step.about)}`
    case 'repeat':
      return `${step.count} × at ${step.pitch}`
    case 'length':
      return `${step.length}, at the ${step.end} end`
  }
}

function cornersIn(pick: CornerPick): string {
  switch (pick.kind) {
    case 'corners':
      return pick.corners.length === 1 ? 'on 1 edge' : `on ${pick.corners.length} edges`
    case 'inside':
      return 'on all inside edges'
    case 'outside':
      return 'on all outside edges'
    case 'step':
      return 'on all edges of a step'
  }
}
