/** How a stretch lies, for those of what was moved or mirrored to be counted like those it is from. */
export interface StretchOrder {
  /** In radians: an angle as it was is `handed` times what it is now, and this. */
  readonly turn: number
  readonly handed: 1 | -1
  /** The axis runs the other way. */
  readonly backwards: boolean
}

export const AS_IT_STANDS: StretchOrder = { turn: 0, handed: 1, backwards: false }

/** What was in an order, turned about the axis by an angle in radians. */
export const orderTurned = (order: StretchOrder, angle: number): StretchOrder => ({
  ...order,
  turn: order.turn - order.handed * angle,
})

/** What was in an order, mirrored about a plane along the axis whose normal stands at an angle. */
export const orderMirrored = (order: StretchOrder, normal: number): StretchOrder => ({
  ...order,
  handed: order.handed === 1 ? -1 : 1,
  turn: order.turn + order.handed * (2 * normal + Math.PI),
})

/** What was in an order, mirrored about a plane square to the axis. */
export const orderReversed = (order: StretchOrder): StretchOrder => ({
  ...order,
  backwards: !order.backwards,
})

/** Pieces in groups that hang together by ends they share. @param endsOf what tells the ends of one */
export function hangingTogether<T>(
  pieces: readonly T[],
  endsOf: (piece: T) => readonly (string | number)[],
): T[][] {
  // Each piece points at one it hangs together with, the first of them at itself.
  const before = pieces.map((_, i) => i)
  const firstOf = (i: number): number => {
    let at = i
    for (let next = before[at] ?? at; next !== at; next = before[at] ?? at) {
      before[at] = before[next] ?? next
      at = next
    }
    return at
  }
  const at = new Map<string | number, number>()
  pieces.forEach((piece, i) => {
    for (const end of endsOf(piece)) {
      const other = at.get(end)
      if (other === undefined) {
        at.set(end, i)
        continue
      }
      const [a, b] = [firstOf(i), firstOf(other)]
      before[Math.max(a, b)] = Math.min(a, b)
    }
  })
  const groups = new Map<number, T[]>()
  pieces.forEach((piece, i) => {
    const first = firstOf(i)
    const own = groups.get(first)
    if (own) own.push(piece)
    else groups.set(first, [piece])
  })
  return [...groups.values()]
}

/** Nearer to one another than this share of their reach, stretches are side by side. */
const BESIDE = 1e-2

/** Angles nearer to one another than this, in radians, are equal. */
const SAME_ANGLE = 2e-2

/**
 * The stretches of one edge, as they are counted: along the axis, those side by side by their angle
 * about it from 0 on, and those at one angle from the axis outwards. The middles of the boxes around
 * them count.
 * @param stretches x, y, z of places of each, in mm
 * @returns their places in the list, in order
 */
export function stretchesInOrder(
  stretches: readonly (readonly number[])[],
  order = AS_IT_STANDS,
): number[] {
  const middles = stretches.map(middleOf)
  const [low, high] = [0, 1, 2].reduce<[number, number]>(
    ([least, most], k) => {
      const all = stretches.flatMap((s) => s.filter((_, i) => i % 3 === k))
      const reach = all.reduce((a, b) => Math.max(a, b), -Infinity)
      const from = all.reduce((a, b) => Math.min(a, b), Infinity)
      return reach - from > most - least ? [from, reach] : [least, most]
    },
    [0, 0],
  )
  const beside = BESIDE * (high - low)
  const counted = middles.map(([x, y, z], i) => {
    const out = Math.hypot(x, y)
    const angle = out <= beside ? 0 : order.handed * Math.atan2(y, x) + order.turn
    return { i, out, along: order.backwards ? -z : z, angle: aroundFromNought(angle) }
  })
  return grouped(counted, (c) => c.along, beside)
    .flatMap((level) => grouped(level, (c) => c.angle, SAME_ANGLE))
    .flatMap((ray) => ray.sort((a, b) => a.out - b.out))
    .map((c) => c.i)
}

/** An angle from 0 up to a whole turn; one that falls short of that by rounding is 0. */
function aroundFromNought(angle: number): number {
  const whole = 2 * Math.PI
  const within = ((angle % whole) + whole) % whole
  return within > whole - SAME_ANGLE ? 0 : within
}

function middleOf(places: readonly number[]): readonly [number, number, number] {
  const middle = (k: number): number => {
    let [low, high] = [Infinity, -Infinity]
    for (let i = k; i < places.length; i += 3) {
      low = Math.min(low, places[i] ?? 0)
      high = Math.max(high, places[i] ?? 0)
    }
    return (low + high) / 2
  }
  return [middle(0), middle(1), middle(2)]
}

/** Items in rising order, those together that follow one another within a gap. */
function grouped<T>(items: readonly T[], by: (item: T) => number, gap: number): T[][] {
  const groups: T[][] = []
  let before = -Infinity
  for (const item of [...items].sort((a, b) => by(a) - by(b))) {
    if (by(item) - before > gap) groups.push([item])
    else groups.at(-1)?.push(item)
    before = by(item)
  }
  return groups
}
