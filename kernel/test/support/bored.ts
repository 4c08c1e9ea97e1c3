import { place, vec } from '@lathica/core/geometry'
import type { Section } from '@lathica/core/section'
import { prismTool, slotOf, turnedTool, type SolidPlan, type SolidTool } from '@lathica/core/solid'
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
