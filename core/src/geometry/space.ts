/** A place or a direction in space, in mm: the part's axis is z, its half-section lies at y = 0, x ≥ 0. */
export interface Place {
  readonly x: number
  readonly y: number
  readonly z: number
}

export const place = (x: number, y: number, z: number): Place => ({ x, y, z })

export const addPlaces = (a: Place, b: Place): Place => place(a.x + b.x, a.y + b.y, a.z + b.z)
export const scalePlace = (a: Place, s: number): Place => place(a.x * s, a.y * s, a.z * s)
export const subtractPlaces = (a: Place, b: Place): Place => place(a.x - b.x, a.y - b.y, a.z - b.z)
export const dotPlaces = (a: Place, b: Place): number => a.x * b.x + a.y * b.y + a.z * b.z
/** The length of a direction, or how far a place is from the origin. */
export const lengthOfPlace = ({ x, y, z }: Place): number => Math.hypot(x, y, z)
/** A direction made 1 long; one without length stays as it is. */
export const unitPlace = (way: Place): Place => scalePlace(way, 1 / (lengthOfPlace(way) || 1))

/** Square to the part's axis and to a way that is so too. */
export const asideOf = ({ x, y }: Place): Place => place(y, -x, 0)

export const crossPlaces = (a: Place, b: Place): Place =>
  place(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)

/** A place turned about the part's axis by an angle in radians. */
export function turned({ x, y, z }: Place, angle: number): Place {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  return place(c * x - s * y, s * x + c * y, z)
}

/** A right-handed frame: where it stands, and its first and third direction, of length 1. */
export interface Frame {
  readonly at: Place
  readonly x: Place
  readonly z: Place
}

/** The frame of the part itself. */
export const PART_FRAME: Frame = { at: place(0, 0, 0), x: place(1, 0, 0), z: place(0, 0, 1) }

/** The second direction of a frame. */
export const secondOf = ({ x, z }: Frame): Place => crossPlaces(z, x)

/** A frame turned about the part's axis. */
export const turnedFrame = (f: Frame, angle: number): Frame => ({
  at: turned(f.at, angle),
  x: turned(f.x, angle),
  z: turned(f.z, angle),
})

/** A frame moved along the part's axis. */
export const movedFrame = (f: Frame, along: number): Frame => ({
  ...f,
  at: place(f.at.x, f.at.y, f.at.z + along),
})

/** A place told in a frame's own directions, in the space of the part. */
export function inFrame(frame: Frame, { x, y, z }: Place): Place {
  const second = secondOf(frame)
  return place(
    frame.at.x + frame.x.x * x + second.x * y + frame.z.x * z,
    frame.at.y + frame.x.y * x + second.y * y + frame.z.y * z,
    frame.at.z + frame.x.z * x + second.z * y + frame.z.z * z,
  )
}
