import type { CornerPick, HolesStep, KnownStep, Measure, Part } from '@lathica/core'

type Sized = Exclude<KnownStep, { kind: 'revolve' | 'wall' | 'extrude' | 'sweep' }>

/** What the words are made with: faces in words by their keys, formulas as figures. */
interface Telling {
  readonly faceOf: (key: string) => string
  readonly figure: (formula: string, want?: Measure) => string
  readonly lie: Part['lie']
  readonly bodyName: (id: string) => string
}

const isNought = (text: string): boolean => text.trim() === '' || Number(text) === 0

/** What a step made, in a few words for its row. */
export function keySize(step: Sized, { faceOf, figure, lie, bodyName }: Telling): string {
  switch (step.kind) {
    case 'groove': {
      const { width, depth, bottom, radius } = step.sizes
      const deep = bottom ? `⌀${figure(bottom)}` : `${figure(depth ?? '')} deep`
      const wide = width ? figure(width) : radius ? `R${figure(radius)}` : ''
      const many = step.count.trim() === '1' ? '' : `${figure(step.count, 'number')} × `
      return `${many}${wide ? `${wide}, ` : ''}${deep}, in ${faceOf(step.on)}`
    }
    case 'bore':
      return step.parts
        .map(
          (p) =>
            `⌀${figure(p.diameter)}${p.depth === '' ? (step.upTo ? '' : ' through') : ` × ${figure(p.depth)}`}`,
        )
        .join(', ')
    case 'fillet':
      return step.sets.map((s) => `R${figure(s.radius)} ${cornersIn(s.pick)}`).join(', ')
    case 'chamfer':
      return step.sets
        .map(
          (s) =>
            `${figure(s.along)} × ${s.across === '' ? figure(s.angle, 'angle') : figure(s.across)} ${cornersIn(s.pick)}`,
        )
        .join(', ')
    case 'shell':
      return `${figure(step.thickness)} ${step.side === 'inside' ? 'inwards' : 'outwards'}, ${
        step.open.length === 0 ? 'closed' : `open at ${step.open.map(faceOf).join(', ')}`
      }`
    case 'move': {
      const words = [
        isNought(step.along) ? '' : `${figure(step.along)} along`,
        isNought(step.turn) ? '' : figure(step.turn, 'angle'),
        isNought(step.beside) ? '' : `${figure(step.beside)} beside`,
      ]
      return words.filter((w) => w !== '').join(', ') || 'in its place'
    }
    case 'import':
      return 'a solid as it came'
    case 'mesh':
      return 'triangles as they came'
    case 'combine':
      return `${bodyName(step.body)} and ${bodyName(step.other)}`
    case 'mirror':
      if (step.way === 'along') return `about the plane at ${figure(step.angle || '0', 'angle')}`
      return `about ${step.about === '' ? `the plane at ${figure(step.at)}` : faceOf(step.about)}`
    case 'repeat':
      return `${figure(step.count, 'number')} × at ${figure(step.pitch)}`
    case 'holes':
      return holesWords(step, figure, faceOf)
    case 'flats': {
      const size = step.measure === 'across' ? 'across' : 'deep'
      return `${figure(step.count, 'number')}, ${figure(step.size)} ${size}`
    }
    case 'slot': {
      const many = step.count.trim() === '1' ? '' : `${figure(step.count, 'number')} × `
      return `${many}${figure(step.width)} wide, ${figure(step.depth)} deep, in ${faceOf(step.on)}`
    }
    case 'around':
      return `${figure(step.count, 'number')} ×`
    case 'halve':
      return step.into === '' ? 'one half stays' : 'two halves'
    case 'length':
      return `${figure(step.length)}, at the ${endWord(step.end, lie)} end`
  }
}

function holesWords(step: HolesStep, figure: Telling['figure'], faceOf: Telling['faceOf']): string {
  const count = {
    circle: () => Number(figure(step.count, 'number')) - step.skip.length,
    places: () => step.places.length,
    sketch: () => undefined,
  }[step.layout]()
  const many = count === 1 || count === undefined ? '' : `${count} × `
  const deep = step.reach === 'depth' ? ` × ${figure(step.depth)}` : ''
  const thread = step.thread.trim() === '' ? '' : ` ${step.thread}`
  const where =
    step.way === 'cross'
      ? ''
      : step.layout === 'circle'
        ? ` on ⌀${figure(step.circle)}`
        : ` in ${faceOf(step.on)}`
  return `${many}⌀${figure(step.diameter)}${deep}${thread}${where}`
}

function endWord(end: 'left' | 'right', lie: Part['lie']): string {
  if (lie === 'lying') return end
  return end === 'left' ? 'lower' : 'upper'
}

function cornersIn(pick: CornerPick): string {
  switch (pick.kind) {
    case 'corners':
      return pick.corners.length === 1 ? 'on 1 edge' : `on ${pick.corners.length} edges`
    case 'solid':
      return pick.edges.length === 1 ? 'on 1 edge' : `on ${pick.edges.length} edges`
    case 'inside':
      return 'on all inside edges'
    case 'outside':
      return 'on all outside edges'
    case 'step':
      return 'on all edges of a step'
  }
}
