import { vec, type Place } from '../../../geometry'
import { holePlaces } from '../../../sketch'
import type { FlatsStep, HolesStep, SlotStep } from '../../../part'
import type { Asked, Shape, SizeText } from '../asked'
import { atEnd, seenFromEnd } from '../ends'
import { lookOf, type StepAsks, type StepView } from '../kind'
import { flatParts, slotParts } from './across'

/** Where a step told its size: along the axis from the end its face looks to, or from beside. */
function toldAt(view: StepView, isEnd: boolean): Shape | undefined {
  const [told] = view.sizes
  if (!told) return undefined
  const from = lookOf(view)
  return isEnd ? atEnd(seenFromEnd(told.at, from), from) : besidePlace(told.at)
}

export const besidePlace = ({ x, y, z }: Place): Shape => ({
  ...{ kind: 'place', at: vec(z, Math.hypot(x, y)), out: vec(0, 1) },
})

/** How many holes are placed one by one: at typed places, or where a sketch has them. */
function placedIn(step: HolesStep, { part }: StepView): number {
  if (step.layout !== 'sketch') return step.places.length
  const sketch = part.sketches.find((s) => s.id === step.sketch)
  return sketch ? holePlaces(sketch).length : 0
}

const number = (view: StepView, formula: string): number => view.value(formula, 'number') ?? 1

const times = (n: number): string => (n > 1 ? `${n} × ` : '')

export const holes: StepAsks<HolesStep> = {
  idle: (step) => [
    ...(step.layout === 'circle' ? [] : ['circle', 'count', 'start', 'range']),
    ...(step.way === 'cross' ? ['circle', 'places'] : ['distance']),
    ...(step.reach === 'depth' ? [] : ['depth']),
    ...(step.reach === 'depth' && step.tip === 'cone' ? [] : ['tipAngle']),
    ...(step.head === 'none' ? ['headDiameter'] : []),
    ...(step.head === 'counterbore' || step.head === 'spotface' ? [] : ['headDepth']),
    ...(step.head === 'countersink' ? [] : ['headAngle']),
  ],
  asks: (step, view): readonly Asked[] => {
    const isEnd = step.way === 'end'
    const shape = toldAt(view, isEnd)
    const inCircle = isEnd && step.layout === 'circle'
    const count =
      inCircle || !isEnd ? number(view, step.count) - step.skip.length : placedIn(step, view)
    const thread = step.thread.trim()
    const first: SizeText =
      thread === ''
        ? view.text(step.diameter, `${times(count)}⌀`)
        : { text: `${times(count)}${thread} (${view.text(step.diameter, '⌀').text})` }
    const deep = step.reach === 'depth' ? ` ↧${view.text(step.depth).text}` : ''
    const shows = ['diameter', ...(inCircle || !isEnd ? ['count'] : [])]
    const lines: SizeText[] = [{ ...first, text: `${first.text}${deep}` }]
    if (step.reach === 'depth') shows.push('depth')
    if (step.reach === 'depth' && step.tip === 'cone') {
      shows.push('tipAngle')
      lines.push({ text: `tip ${view.text(step.tipAngle, '', 'angle').text}` })
    }
    if (step.head === 'counterbore' || step.head === 'spotface') {
      shows.push('headDiameter', 'headDepth')
      lines.push({
        text: `⌴ ${view.text(step.headDiameter, '⌀').text} ↧${view.text(step.headDepth).text}`,
      })
    }
    if (step.head === 'countersink') {
      shows.push('headDiameter', 'headAngle')
      lines.push({
        text: `⌵ ${view.text(step.headDiameter, '⌀').text} × ${view.text(step.headAngle, '', 'angle').text}`,
      })
    }
    if (inCircle) {
      shows.push('circle')
      lines.push({ text: `on ${view.text(step.circle, '⌀').text}` })
      if (step.start.trim() !== '') {
        shows.push('start')
        lines.push({ text: `first at ${view.text(step.start, '', 'angle').text}` })
      }
      if (step.range.trim() !== '') {
        shows.push('range')
        lines.push({ text: `over ${view.text(step.range, '', 'angle').text}` })
      }
    } else if (isEnd && step.layout === 'places') {
      step.places.forEach(({ diameter, angle }, i) => {
        shows.push(`places/${i}/diameter`, `places/${i}/angle`)
        lines.push({
          text: `at ${view.text(diameter, '⌀').text}, ${view.text(angle, '', 'angle').text}`,
        })
      })
    } else if (!isEnd) {
      if (step.start.trim() !== '') {
        shows.push('start')
        lines.push({ text: `first at ${view.text(step.start, '', 'angle').text}` })
      }
      if (step.distance.trim() !== '') {
        shows.push('distance')
        lines.push({
          text: `${view.text(step.distance).text} from ${step.from === '' ? 'the left end' : 'its edge'}`,
        })
      }
    }
    return view.call(shows, lines, shape)
  },
}

export const flats: StepAsks<FlatsStep> = {
  asks: (step, view) => {
    const shows = ['count', 'size']
    const count = number(view, step.count)
    const size = view.text(step.size).text
    const flat = count > 1 ? `${count} flats` : 'flat'
    const across = count === 4 ? `□${size}` : `${flat}, ${size} across`
    const lines: SizeText[] = [
      { text: step.measure === 'across' ? across : `${flat}, ${size} deep` },
    ]
    if (step.length.trim() !== '') {
      shows.push('length')
      lines.push({ text: `${view.text(step.length).text} long` })
    }
    if (step.distance.trim() !== '') {
      shows.push('distance')
      lines.push({ text: `${view.text(step.distance).text} from the ${step.end} end` })
    }
    if (step.phase.trim() !== '') {
      shows.push('phase')
      lines.push({ text: `at ${view.text(step.phase, '', 'angle').text}` })
    }
    const parts = flatParts(step, view, count)
    return view.call(shows, lines, toldAt(view, false)).map((a) => ({ ...a, ...parts }))
  },
}

export const slot: StepAsks<SlotStep> = {
  idle: ({ form, length }) => [
    ...(form === 'woodruff' ? ['length'] : ['cutter']),
    ...(form === 'end' ? ['distance', ...(length.trim() === '' ? ['length'] : [])] : []),
  ],
  asks: (step, view) => {
    const shows = ['width', 'depth', 'count']
    const name = { keyway: 'keyway', woodruff: 'half-round seat', end: 'slot' }[step.form]
    const lines: SizeText[] = [
      { text: `${times(number(view, step.count))}${name} ${view.text(step.width).text} wide` },
      { text: `${view.text(step.depth).text} deep` },
    ]
    const put = (path: string, formula: string, text: string): void => {
      if (formula.trim() === '') return
      shows.push(path)
      lines.push({ text })
    }
    if (step.form !== 'woodruff') put('length', step.length, `${view.text(step.length).text} long`)
    else put('cutter', step.cutter, `cutter ${view.text(step.cutter, '⌀').text}`)
    if (step.form !== 'end')
      put('distance', step.distance, `${view.text(step.distance).text} from its edge`)
    put('phase', step.phase, `at ${view.text(step.phase, '', 'angle').text}`)
    const parts = slotParts(step, view, number(view, step.count))
    return view
      .call(shows, lines, toldAt(view, step.form === 'end'))
      .map((a) => ({ ...a, ...parts }))
  },
}
