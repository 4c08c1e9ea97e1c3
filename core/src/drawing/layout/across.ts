import { line, mapped, vec, type Vec } from '../../geometry'
import { greatestRadius } from '../../section'
import { DIRECTION_TOLERANCE } from '../../tolerances'
import { cutPlace, type Asked } from '../asked'
import { strokes } from '../items'
import { widthOf } from '../lettering'
import { SCALES, type Scale } from '../paper/scales'
import type { Seen } from '../seen'
import { hatchLines, hatchingOf } from '../views/hatch'
import { crossLines, ring, type View } from '../views/turned'
import type { Shown } from '../views/shown'
import type { AlongSetting } from './along'
import { boxOf, type Sheeted } from './arrange'
import { layFlat, type FlatAsk } from './flat'
import { callOf, Laying } from './laying'
import { head, straight, type Placed } from './marks'
import { plot } from './space'

/** A section across the axis (ISO 128-3:2020): what is cut at one place, drawn beside the view. */
export interface CutAcross {
  readonly letter: string
  /** Where along the axis, in mm of the part. */
  readonly at: number
  readonly scale: Scale
  readonly asked: readonly Asked[]
}

/** Places nearer to each other than this are cut as one, in mm. */
const ONE_PLACE = 1e-6
/** A section is drawn larger where it would be less wide on paper, in mm. */
const TOO_SMALL = 26
const LETTERS = [...'ABCDEFGHJKLMNPQRSTUVWXYZ']

/**
 * The sections that what is asked wants, from the left.
 * @param taken letters that mean something else on the sheet
 */
export function cutsAcross(
  asked: readonly Asked[],
  bodies: readonly Shown[],
  by: Scale,
  taken: ReadonlySet<string>,
): CutAcross[] {
  const letters = LETTERS.filter((l) => !taken.has(l))
  const places: { at: number; asked: Asked[] }[] = []
  for (const one of asked) {
    const at = cutPlace(one.shape)
    if (at === undefined) continue
    const known = places.find((p) => Math.abs(p.at - at) < ONE_PLACE)
    if (known) known.asked.push(one)
    else places.push({ at, asked: [one] })
  }
  return places
    .sort((a, b) => a.at - b.at)
    .map(({ at, asked: own }, i) => {
      const wide = 2 * radiusAt(bodies, at)
      const larger = SCALES.filter((s) => s.by >= by.by && wide * s.by >= TOO_SMALL)
      const scale = wide * by.by >= TOO_SMALL ? by : (larger.at(-1) ?? by)
      return { at, asked: own, scale, letter: letters[i] ?? String(i + 1) }
    })
}

const radiusAt = (bodies: readonly Shown[], at: number): number =>
  Math.max(0, ...bodies.map((b) => greatestRadius(b.section, at, at)))

/** A section with its sizes, the axis at the origin. @param seen what the kernel told of it, if it has */
export function acrossSheet(
  { letter, at, scale, asked }: CutAcross,
  bodies: readonly Shown[],
  main: Scale,
  { style, moved, badgesFor }: AlongSetting,
  seen: Seen | undefined,
): Sheeted & { readonly left: readonly string[] } {
  const { by } = scale
  const put = (p: Vec): Vec => vec(p.x * by, p.y * by)
  const radius = radiusAt(bodies, at) * by
  const cuts = seen?.cuts.map((cut) => cut.map((p) => mapped(p, put, false)))
  const outlines = cuts ? cuts.flat() : ring(vec(0, 0), radius)
  const hatch = (cuts ?? [outlines]).flatMap((cut, i) =>
    hatchLines([cut], hatchingOf(i, 2 * radius)),
  )
  const view: View = {
    items: [strokes('narrow', hatch), strokes('wide', outlines), crossLines(radius)],
    outlines,
    outside: (x) => Math.sqrt(Math.max(0, radius * radius - x * x)),
    ...{ left: -radius, right: radius, radius },
  }
  const isInside = (p: Vec): boolean => Math.hypot(p.x, p.y) < radius
  const laying = new Laying(outlines, isInside, style, badgesFor)
  const between = asked.flatMap((a): FlatAsk[] =>
    a.shape.kind === 'section'
      ? [{ asked: a, way: a.shape.way, from: put(a.shape.from), to: put(a.shape.to) }]
      : [],
  )
  layFlat(between, radius, laying, style, moved)
  for (const one of asked) {
    const { shape } = one
    if (shape.kind !== 'onSection') continue
    laying.lead(callOf(one, style, moved, [{ at: put(shape.place), out: shape.out }]))
  }
  laying.finish()
  const { placed, left } = laying
  const box = boxOf(view, placed)
  const isSame = Math.abs(by / main.by - 1) < DIRECTION_TOLERANCE
  const title = isSame ? `${letter}–${letter}` : `${letter}–${letter} (${scale.words})`
  const top = Math.max(box.y1, radius + 4) + 2
  const start = vec((box.x0 + box.x1 - widthOf(title, style.letter)) / 2, top)
  return {
    ...{ view, placed, left, box: { ...box, y1: start.y + style.letter } },
    extra: [{ kind: 'words', at: start, height: style.letter, turned: false, text: title }],
  }
}

/** How far beyond the outline a cutting line begins, and how long its ends are, in mm. */
const OFF = 1.5
const LONG = 5

/** The ends of the cutting line on the view, with the way it is looked at, and the letter (ISO 128-3:2020). */
export function cuttingLine(
  { letter, at }: CutAcross,
  { view, by, style, moved }: AlongSetting,
): readonly Placed[] {
  const x = at * by
  const near = Math.max(view.outside(x), 0) + OFF
  const size = 1.4 * style.letter
  return ([1, -1] as const).map((side): Placed => {
    const id = `section/${letter}/${side}`
    const off = moved.get(id) ?? vec(0, 0)
    const [from, to] = [side * near, side * (near + LONG) + off.y]
    const tip = vec(x + 7, to)
    // Beside the arrow, away from the view.
    const corner = vec(x + 1.5, side > 0 ? to + 1.2 : to - 1.2 - size)
    return {
      ...{ id, said: `Section ${letter}–${letter}`, at: corner, moves: straight(off) },
      labels: [plot(corner.x, corner.y, corner.x + widthOf(letter, size), corner.y + size)],
      lines: [
        { a: vec(x, from), b: vec(x, to) },
        { a: vec(x, to), b: tip },
      ],
      items: [
        { kind: 'stroke', line: 'wide', runs: [[line(vec(x, from), vec(x, to))]] },
        { kind: 'stroke', line: 'narrow', runs: [[line(vec(x, to), tip)]] },
        head(tip, vec(1, 0), style.arrow),
        { kind: 'words', at: corner, height: size, turned: false, text: letter },
      ],
    }
  })
}
