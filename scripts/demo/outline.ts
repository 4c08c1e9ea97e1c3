import { AXIS_ID, ORIGIN_ID, locator, type Sketch } from '@lathica/core/sketch'
import type { NewConstraint } from '@lathica/core/constraints'
import { STOCK_MATERIALS, type Material, type Part } from '@lathica/core/part'
import {
  addRevolve,
  addSize,
  drawChain,
  drawPiece,
  perform,
  type Command,
  type End,
  type SizeOffer,
} from '@lathica/core/edit'

/** Runs commands one after another; a refusal is a bug in the demo data. */
export function run(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((here, command) => {
    const result = perform(here, command)
    if (!result.ok) throw new Error(`${command.label}: ${result.problem.message}`)
    return result.value
  }, part)
}

/** One of the stock materials. */
export function material(id: string): Material {
  const found = STOCK_MATERIALS.find((m) => m.id === id)
  if (!found) throw new Error(`there is no material ${id}`)
  return found
}

/** Corners of a half-section, from the axis round to the axis: axial position and diameter in mm. */
export type Corners = readonly (readonly [x: number, diameter: number])[]

/**
 * Draws a profile roughly, as by hand, with axial and radial lines where corners are level: from a
 * first corner to a last, or round to the first again where the profile keeps off the axis.
 */
export function draw(part: Part, corners: Corners): Part {
  const sketch = profile(part)
  const closed = corners.every(([, diameter]) => diameter > 0)
  const rough = (value: number, i: number): number => value * (1 + 0.02 * Math.sin(7 * i))
  const ends = corners.map(([x, diameter], i): End => {
    const at = { x: rough(x, i), y: rough(diameter / 2, i + 3) }
    if (diameter > 0) return { at }
    return x === 0 ? { at: { x: 0, y: 0 }, point: ORIGIN_ID } : { at, on: [AXIS_ID] }
  })
  const directions = corners.slice(1).map(([x, diameter], i): ('axial' | 'radial')[] => {
    const [fromX, fromDiameter] = corners[i] ?? [0, 0]
    return diameter === fromDiameter ? ['axial'] : x === fromX ? ['radial'] : []
  })
  const drawn = run(part, drawChain(sketch.id, ends, directions))
  if (!closed) return drawn
  const [first, last] = [profile(drawn).points[0], profile(drawn).points.at(-1)]
  if (!first || !last) return drawn
  const [a, b] = [corners[0], corners.at(-1)]
  const closing = a?.[1] === b?.[1] ? 'axial' : 'radial'
  const join = [
    { at: last, point: last.id },
    { at: first, point: first.id },
  ]
  return run(drawn, drawChain(sketch.id, join, [[closing]]))
}

/** The next piece of a profile: where it ends, axial position and diameter in mm, and how it runs. */
export interface Stroke {
  readonly to: readonly [x: number, diameter: number] | End
  readonly direction?: 'axial' | 'radial'
  /** The centre of an arc, and the way it turns. */
  readonly arc?: {
    readonly centre: readonly [x: number, diameter: number]
    readonly counterClockwise: boolean
  }
  /** Further constraints; the piece goes by `~piece`, its ends and centre by `~from`, `~to`, `~centre`. */
  readonly ties?: (sketch: Sketch) => readonly NewConstraint[]
}

/** Draws piece after piece, each from where the last one ended. */
export function drawStrokes(part: Part, start: End, strokes: readonly Stroke[]): Part {
  let [here, from] = [part, start]
  for (const { to, direction, arc, ties } of strokes) {
    const sketch = profile(here)
    here = run(
      here,
      drawPiece({
        sketch: sketch.id,
        from,
        to: 'length' in to ? { at: placeOf(to) } : to,
        role: 'outline',
        directions: direction ? [direction] : [],
        ties: ties?.(sketch) ?? [],
        ...(arc ? { arc: { ...arc, centre: placeOf(arc.centre) } } : {}),
      }),
    )
    const drawn = profile(here).entities.at(-1)
    if (drawn && drawn.kind !== 'circle') from = endAt(here, drawn.to)
  }
  return here
}

/** A point that is there, to draw on from or to. */
export function endAt(part: Part, point: string): End {
  return { at: locator(profile(part))(point), point }
}

/** Entities by the order they were drawn in. */
export function drawn(part: Part, ...order: readonly number[]): string[] {
  return order.map((i) => profile(part).entities[i]?.id ?? '')
}

const placeOf = ([x, diameter]: readonly [number, number]): { x: number; y: number } => ({
  x,
  y: diameter / 2,
})

/** The part's only profile. */
export function profile(part: Part): Sketch {
  const [sketch] = part.sketches
  if (!sketch) throw new Error('the part has no profile')
  return sketch
}

/** A size to put on, told by the numbers of corners or lines in the order they were drawn. */
export type Wanted =
  | readonly ['⌀', corner: number, formula: string]
  | readonly ['length', line: number, formula: string]
  | readonly ['along', from: number, to: number, formula: string]
  | readonly ['angle', line: number, formula: string]
  | readonly ['span', corner: number, about: number, formula: string]
  | readonly ['radius', arc: number, formula: string]

/** Puts sizes on the profile, in the order given, and turns it. */
export function sizeAndTurn(part: Part, wanted: readonly Wanted[]): Part {
  return run(sizeUp(part, wanted), addRevolve(profile(part).id))
}

/** Puts sizes on the profile, in the order given. */
export function sizeUp(part: Part, wanted: readonly Wanted[]): Part {
  return wanted.reduce((here, want) => {
    const sketch = profile(here)
    const point = (i: number): string => sketch.points[i]?.id ?? ''
    const line = (i: number): string => sketch.entities[i]?.id ?? ''
    const offer = (): SizeOffer => {
      switch (want[0]) {
        case '⌀':
          return { kind: 'diameter', point: point(want[1]) }
        case 'length':
          return { kind: 'length', line: line(want[1]) }
        case 'along':
          return { kind: 'axialDistance', a: point(want[1]), b: point(want[2]) }
        case 'angle':
          return { kind: 'angle', line: line(want[1]), to: AXIS_ID, reversed: false }
        case 'span':
          return { kind: 'span', point: point(want[1]), about: line(want[2]) }
        case 'radius':
          return { kind: 'radius', curve: line(want[1]) }
      }
    }
    const formula = want[want.length - 1]
    return run(here, addSize(sketch.id, offer(), String(formula)))
  }, part)
}
