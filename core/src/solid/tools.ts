import {
  addPlaces,
  arc,
  line,
  place,
  scalePlace,
  turned,
  vec,
  type Frame,
  type Piece,
  type Place,
  type Vec,
} from '../geometry'
import type { Section, SectionEdge } from '../section'
import type { PrismTool, TurnedTool } from './plan'

/** A closed outline of named pieces. */
export function outlineOf(
  step: string,
  pieces: readonly { readonly piece: Piece; readonly name: string }[],
): Section {
  const outer = pieces.map(({ piece, name }): SectionEdge => ({
    piece,
    name: { step, entity: name, role: 'made' },
  }))
  return { regions: [{ outer, holes: [] }] }
}

/** A rectangle between two corners. */
export function rectangleOf(step: string, from: Vec, to: Vec): Section {
  const corners = [from, vec(to.x, from.y), to, vec(from.x, to.y)]
  const names = ['near', 'end', 'far', 'start']
  return outlineOf(
    step,
    corners.map((p, i) => ({
      piece: line(p, corners[(i + 1) % 4] ?? p),
      name: names[i] ?? '',
    })),
  )
}

/** A slot along x with half-round ends, from end to end. */
export function slotOf(step: string, from: number, to: number, width: number): Section {
  const r = width / 2
  const [a, b] = [from + r, to - r]
  return outlineOf(step, [
    { piece: line(vec(a, -r), vec(b, -r)), name: 'near' },
    { piece: arc(vec(b, -r), vec(b, r), vec(b, 0), true), name: 'end' },
    { piece: line(vec(b, r), vec(a, r)), name: 'far' },
    { piece: arc(vec(a, r), vec(a, -r), vec(a, 0), true), name: 'start' },
  ])
}

/** A circle about the middle, in two halves. */
export function circleOf(step: string, diameter: number): Section {
  const r = diameter / 2
  const [a, b, middle] = [vec(-r, 0), vec(r, 0), vec(0, 0)]
  return outlineOf(step, [
    { piece: arc(a, b, middle, true), name: 'rod' },
    { piece: arc(b, a, middle, true), name: 'rod' },
  ])
}

/** A rectangle about the middle, its corners rounded where a radius is given. */
export function barOf(step: string, width: number, height: number, radius: number): Section {
  const [x, y, r] = [width / 2, height / 2, radius]
  if (r <= 0) return rectangleOf(step, vec(-x, -y), vec(x, y))
  const corners = [
    [vec(x - r, -y + r), vec(x - r, -y), vec(x, -y + r)],
    [vec(x - r, y - r), vec(x, y - r), vec(x - r, y)],
    [vec(-x + r, y - r), vec(-x + r, y), vec(-x, y - r)],
    [vec(-x + r, -y + r), vec(-x, -y + r), vec(-x + r, -y)],
  ] as const
  return outlineOf(
    step,
    corners.flatMap(([centre, from, to], i) => [
      { piece: arc(from, to, centre, true), name: 'rod' },
      { piece: line(to, corners[(i + 1) % 4]?.[1] ?? to), name: 'rod' },
    ]),
  )
}

/** Out from the axis at an angle. */
export const outwards = (angle: number): Place => place(Math.cos(angle), Math.sin(angle), 0)

const ALONG: Place = place(0, 0, 1)

/** A frame that looks out from the axis: its z outwards, its x along the axis, from a place on it. */
export const lookingOut = (angle: number, along = 0): Frame => ({
  at: place(0, 0, along),
  x: ALONG,
  z: outwards(angle),
})

/** A frame whose z runs inwards from a place out at an angle. */
export const lookingIn = (angle: number, along: number, radius: number): Frame => ({
  at: addPlaces(scalePlace(outwards(angle), radius), place(0, 0, along)),
  x: ALONG,
  z: scalePlace(outwards(angle), -1),
})

/** A frame whose z runs along the axis, to the right or to the left, from a place beside it. */
export function lookingAlong(at: Place, way: 1 | -1, angle = 0): Frame {
  return { at, x: outwards(angle), z: place(0, 0, way) }
}

/** A frame of the half-plane at an angle: x along the axis, y out from it, z on round it. */
export const halfPlane = (angle: number): Frame => ({
  at: place(0, 0, 0),
  x: ALONG,
  z: turned(place(0, 1, 0), angle),
})

export const turnedTool = (
  section: Section,
  frame: Frame,
  mark = '',
): TurnedTool & { readonly mark: string } => ({ kind: 'turned', section, frame, mark })

export const prismTool = (
  outline: Section,
  frame: Frame,
  from: number,
  to: number,
  mark = '',
): PrismTool & { readonly mark: string } => ({ kind: 'prism', outline, frame, from, to, mark })
