import { place, vec } from '@lathica/core/geometry'
import type { Section } from '@lathica/core/section'
import {
  lookingOut,
  prismTool,
  rectangleOf,
  slotOf,
  turnedTool,
  type SolidPlan,
  type SolidTool,
} from '@lathica/core/solid'
import { outlineOf } from '../../../core/test/support/sections'

/** A flange with a hub to its right and a bore, if it is wide. */
export function flange(radius: number, thick: number, hub: number, bore: number) {
  return outlineOf(
    [
      [0, bore],
      [thick + 20, bore],
      [thick + 20, hub],
      [thick, hub],
      [thick, radius],
      [0, radius],
    ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
  )
}

/** Part of a ring about the axis, so far round in radians. */
export function ringPart(inner: number, outer: number, half: number) {
  const at = (r: number, a: number) => vec(-r * Math.sin(a), r * Math.cos(a))
  const bulge = Math.tan(half / 2)
  return outlineOf([
    { at: at(inner, -half) },
    { at: at(outer, -half), bulge },
    { at: at(outer, half) },
    { at: at(inner, half), bulge: -bulge },
  ])
}

export interface Hole {
  readonly from: 'left' | 'right'
  readonly far: number
  readonly angle: number
  readonly radius: number
  /** Of its head, 0 for none. */
  readonly head: number
  readonly deep: number
  readonly tip: boolean
}

/** A hole from a face, with a counterbore and a cone at its end. */
export function drilled(thick: number, { from, far, angle, radius, head, deep, tip }: Hole) {
  const outline = [
    [-2, 0],
    [deep + (tip ? radius * 0.6 : 0), 0],
    [deep, radius],
    ...(head > 0
      ? [
          [deep / 3, radius],
          [deep / 3, head],
          [-2, head],
        ]
      : [[-2, radius]]),
  ]
  const section = outlineOf(outline.map(([x = 0, y = 0]) => ({ at: vec(x, y) })))
  const way = from === 'left' ? 1 : -1
  const frame = {
    at: place(far * Math.cos(angle), far * Math.sin(angle), from === 'left' ? 0 : thick),
    ...{ x: place(1, 0, 0), z: place(0, 0, way) },
  }
  return turnedTool(section, frame, '')
}

/** A body with something taken from it in one step. */
export const cutBy = (base: Section, tools: readonly SolidTool[]): SolidPlan => ({
  base,
  ops: [{ kind: 'combine', step: 's1', effect: 'cut', tools }],
})

/** A flange with a circle of like holes, of any kind. @param random from 0 to 1 */
export function anyDrilled(random: () => number): SolidPlan {
  const between = (a: number, b: number): number => a + random() * (b - a)
  const thick = between(8, 25)
  const [hub, radius] = [between(14, 20), between(50, 70)]
  const base = flange(radius, thick, hub, random() < 0.5 ? between(3, 10) : 0)
  const count = 1 + Math.floor(random() * 8)
  const hole: Omit<Hole, 'angle'> = {
    from: random() < 0.5 ? 'left' : 'right',
    ...{ far: between(28, radius - 8), radius: between(1, 3) },
    head: random() < 0.5 ? between(3.2, 5) : 0,
    ...{ deep: random() < 0.5 ? thick + 3 : between(2, thick * 0.7), tip: random() < 0.5 },
  }
  const start = between(0, 6)
  const tools = Array.from({ length: count }, (_, n) => ({
    ...drilled(thick, { ...hole, angle: start + (2 * Math.PI * n) / count }),
    mark: `@${n}`,
  }))
  return cutBy(base, tools)
}

/** A flange with a circle of slots or parts of rings, through it or to a floor, from either side. */
export function anyOpened(random: () => number): SolidPlan {
  const between = (a: number, b: number): number => a + random() * (b - a)
  const thick = between(8, 20)
  const base = flange(between(50, 60), thick, between(14, 18), 5)
  const count = 2 + Math.floor(random() * 4)
  const deep = random() < 0.5 ? thick + 1 : between(2, thick - 2)
  const [length, wide] = [between(4, 12), between(2, 6)]
  const outline = random() < 0.5 ? slotOf('slot', 24, 27 + length, wide) : ringPart(24, 40, 0.4)
  const way = random() < 0.5 ? 1 : -1
  const tools = Array.from({ length: count }, (_, n) => {
    const turn = 0.3 + (2 * Math.PI * n) / count
    const x = place(Math.cos(turn), Math.sin(turn), 0)
    const at = place(0, 0, way > 0 ? 0 : thick)
    return prismTool(outline, { at, x, z: place(0, 0, way) }, -1, deep, `@${n}`)
  })
  return cutBy(base, tools)
}

/** A bored shaft of two lands with up to three keyways, flats or slots from its end. */
export function anyMilled(random: () => number): SolidPlan {
  const between = (a: number, b: number): number => a + random() * (b - a)
  const [r1, r2] = [between(10, 16), between(18, 25)]
  const bevel = between(0.5, 2)
  // A bored shaft of two lands, its ends bevelled and rounded.
  const base = outlineOf([
    { at: vec(-30, 4) },
    { at: vec(60, 4) },
    { at: vec(60, r2 - 2), bulge: random() < 0.5 ? Math.tan(Math.PI / 8) : 0 },
    { at: vec(58, r2) },
    { at: vec(20, r2) },
    { at: vec(20, r1) },
    { at: vec(-30 + bevel, r1) },
    { at: vec(-30, r1 - bevel) },
  ])
  const kind = Math.floor(random() * 3)
  // Three flats would meet where the shaft is thick.
  const count = 1 + Math.floor(random() * (kind === 1 ? 2 : 3))
  const angle = between(0, 6)
  const wide = between(3, 6)
  const deep = between(1, 3)
  const tools = Array.from({ length: count }, (_, n) => {
    const turn = angle + (2 * Math.PI * n) / count
    const out = place(Math.cos(turn), Math.sin(turn), 0)
    if (kind === 0) {
      const keyway = slotOf('key', between(-25, -10), between(0, 15), wide)
      return prismTool(keyway, lookingOut(turn), r1 - deep, r1 + 4, `@${n}`)
    }
    const frame = { at: place(0, 0, 0), x: out, z: place(0, 0, 1) }
    const low = kind === 1 ? r1 - deep * 0.6 : between(7, 12)
    const side = kind === 1 ? 40 : wide / 2
    const flat = rectangleOf('flat', vec(low, -side), vec(40, side))
    // From before the end up to the step, exactly, or over it into the land behind it, or from the end itself.
    const to = [between(-20, 15), 20, 30][Math.floor(random() * 3)] ?? 0
    return prismTool(flat, frame, random() < 0.7 ? -31 : -30, to, `@${n}`)
  })
  return cutBy(base, tools)
}

/**
 * A hub, perhaps bored, with a plain hole across it.
 * @param way 0 down to a flat end, 1 through one wall, 2 through all of it
 * @returns and whether it is told without the kernel: to the axis itself, in what is solid, it is not
 */
export function anyCrossed(random: () => number, way: number) {
  const between = (a: number, b: number): number => a + random() * (b - a)
  const bore = random() < 0.5 ? between(6, 9) : 0
  const base = flange(between(20, 30), 20, between(14, 18), bore)
  const [radius, turn] = [between(1, 4), between(0, 6)]
  const deep = way === 0 ? between(2, 4) : way === 1 ? 33 : 80
  const at = place(33 * Math.cos(turn), 33 * Math.sin(turn), 30)
  const frame = {
    ...{ at, x: place(0, 0, 1) },
    z: place(-Math.cos(turn), -Math.sin(turn), 0),
  }
  const reach = way === 0 ? 33 - 14 + deep : deep
  const section = rectangleOf('hole', vec(-2, 0), vec(reach, radius))
  const tools = [turnedTool(section, frame, '')]
  return { plan: cutBy(base, tools), isTold: way !== 1 || bore > 0 }
}
