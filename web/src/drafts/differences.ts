import { formatLength } from '@lathica/core/units'
import type { Sketch } from '@lathica/core/sketch'
import type { Part, Step } from '@lathica/core/part'
import { stepTitle } from '../route/kinds'

/** One thing that two states of a part do not say alike; empty where one of them says nothing of it. */
export interface Difference {
  readonly what: string
  readonly before: string
  readonly after: string
}

/** Places closer than this, in mm, are the same to whoever looks. */
const SAME_PLACE = 1e-6

/** What differs between two states of a part, in the order of the screen: part, values, bodies, profiles, route. */
export function differencesOf(before: Part, after: Part): Difference[] {
  return [
    ...told('name', before.name, after.name),
    ...told('lie', before.lie, after.lie),
    ...told('unit of lengths', before.units.length, after.units.length),
    ...matched(before.values, after.values, 'name').flatMap(([a, b]) =>
      told(`value ${(a ?? b)?.name}`, a?.formula ?? '', b?.formula ?? ''),
    ),
    ...matched(before.bodies, after.bodies, 'id').flatMap(([a, b]) => [
      ...told(`body ${(a ?? b)?.name}`, a ? a.name : '', b ? b.name : ''),
      ...(a && b ? told(`material of ${b.name}`, materialIn(before, a), materialIn(after, b)) : []),
    ]),
    ...matched(before.sketches, after.sketches, 'id').flatMap(([a, b]) =>
      a && b
        ? profileDifferences(a, b, after)
        : told(`profile ${(a ?? b)?.name}`, a ? drawnIn(a) : '', b ? drawnIn(b) : ''),
    ),
    ...matched(before.route, after.route, 'id').flatMap(([a, b]) =>
      a && b ? stepDifferences(a, b) : told(stepName(a ?? b), a ? 'there' : '', b ? 'there' : ''),
    ),
    ...told('order of the route', orderIn(before, after), orderIn(after, before)),
    ...told('picture behind the board', pictureIn(before), pictureIn(after)),
    ...told('rows of the inspection sheet', `${before.checks.length}`, `${after.checks.length}`),
  ]
}

const pictureIn = ({ picture }: Part): string =>
  picture ? `${picture.width} × ${picture.height} pixels` : ''

const told = (what: string, before: string, after: string): Difference[] =>
  before === after ? [] : [{ what, before, after }]

/** Items of two lists that are called the same, those of the first before those that only the second has. */
function matched<T, K extends keyof T>(
  before: readonly T[],
  after: readonly T[],
  key: K,
): readonly (readonly [T | undefined, T | undefined])[] {
  const later = new Map(after.map((item) => [item[key], item]))
  const earlier = new Set(before.map((item) => item[key]))
  return [
    ...before.map((item) => [item, later.get(item[key])] as const),
    ...after.filter((item) => !earlier.has(item[key])).map((item) => [undefined, item] as const),
  ]
}

const materialIn = (part: Part, body: Part['bodies'][number]): string =>
  part.materials.find((m) => m.id === body.material)?.name ?? ''

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`
const drawnIn = (sketch: Sketch): string =>
  `${counted(sketch.entities.length, 'line')}, ${counted(sketch.sizes.length, 'size')}`

function profileDifferences(a: Sketch, b: Sketch, part: Part): Difference[] {
  const of = `in profile ${b.name}`
  const places = new Map(a.points.map((p) => [p.id, p]))
  let moved = 0
  let most = 0
  for (const p of b.points) {
    const was = places.get(p.id)
    const by = was ? Math.hypot(p.x - was.x, p.y - was.y) : 0
    if (by > SAME_PLACE) moved++
    most = Math.max(most, by)
  }
  const by = `${counted(moved, 'point')} moved, by up to ${formatLength(most, part.units)} ${part.units.length}`
  return [
    ...told(`name of profile ${a.name}`, a.name, b.name),
    ...matched(a.sizes, b.sizes, 'id').flatMap(([x, y]) =>
      told(`size ${(x ?? y)?.name} ${of}`, x?.formula ?? '', y?.formula ?? ''),
    ),
    ...listed(`lines ${of}`, a.entities, b.entities),
    ...listed(`constraints ${of}`, a.constraints, b.constraints),
    ...told(`places ${of}`, '', moved > 0 ? by : ''),
  ]
}

/** How many of a list only one of two states has. */
function listed(
  what: string,
  a: readonly { readonly id: string }[],
  b: readonly { readonly id: string }[],
): Difference[] {
  const pairs = matched(a, b, 'id')
  const [gone, come] = [pairs.filter(([, y]) => !y).length, pairs.filter(([x]) => !x).length]
  const only = (n: number): string => (n > 0 ? `${n} that the other has not` : '')
  return told(what, only(gone), only(come))
}

const stepName = (step: Step | undefined): string =>
  step ? `${stepTitle(step)} ${step.number}` : ''

function stepDifferences(a: Step, b: Step): Difference[] {
  const [was, is] = [new Map(Object.entries(a)), new Map(Object.entries(b))]
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((field) => {
    const [x, y] = [was.get(field) as unknown, is.get(field) as unknown]
    if (JSON.stringify(x) === JSON.stringify(y)) return []
    const isPlain = [x, y].every((v) => typeof v !== 'object' || v === null)
    const words = `${stepName(b)}: ${field === 'aside' ? 'set aside' : field}`
    if (!isPlain) return [{ what: words, before: '', after: 'changed' }]
    return told(words, plainWords(x), plainWords(y))
  })
}

function plainWords(value: unknown): string {
  if (value === undefined || value === '') return '—'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  return String(value)
}

/** The steps that both have, in the order of the first, by their numbers. */
function orderIn(part: Part, other: Part): string {
  const both = new Set(other.route.map((s) => s.id))
  const ids = part.route.filter((s) => both.has(s.id)).map((s) => s.id)
  const same = other.route.filter((s) => ids.includes(s.id)).map((s) => s.id)
  if (ids.join() === same.join()) return ''
  return ids.map((id) => part.route.find((s) => s.id === id)?.number).join(', ')
}
