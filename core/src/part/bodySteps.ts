/** Steps that work on bodies as a whole. Numbers are formulas as typed. */
interface AnyBodyStep {
  readonly id: string
  readonly number: number
  readonly aside: boolean
  readonly body: string
}

/** A body mirrored about a plane, joined to itself or as another body; or what earlier steps did. */
export interface MirrorStep extends AnyBodyStep {
  readonly kind: 'mirror'
  /** The plane is square to the axis, or goes along through it. */
  readonly way: 'across' | 'along'
  /** Key of an edge in a plane square to the axis; empty when the place says. */
  readonly about: string
  readonly at: string
  /** The angle of a plane through the axis. */
  readonly angle: string
  /** The body that gets the image; the same one joins it. */
  readonly into: string
  /** Steps whose work is mirrored, each in its own body; none for all of the body. */
  readonly steps: readonly string[]
}

/** A body moved and turned, or a copy of it that is. */
export interface MoveStep extends AnyBodyStep {
  readonly kind: 'move'
  /** To the right. */
  readonly along: string
  /** About the axis. */
  readonly turn: string
  /** Away from the axis, and which way. */
  readonly beside: string
  readonly towards: string
  /** The body that gets a copy; the body's own id moves the body itself. */
  readonly into: string
}

/** Two bodies joined, one cut from the other, or what both have in common. */
export interface CombineStep extends AnyBodyStep {
  readonly kind: 'combine'
  readonly other: string
  readonly effect: 'add' | 'cut' | 'common'
  /** Whether the other body stays as it is. */
  readonly keep: boolean
}

/** Where places of a file lie in the part, as x, y, z of a place and two directions. */
export interface ImportFrame {
  readonly at: readonly [number, number, number]
  readonly x: readonly [number, number, number]
  readonly z: readonly [number, number, number]
}

/** A solid that came in a file, as it is. */
export interface ImportStep extends AnyBodyStep {
  readonly kind: 'import'
  /** An exchange file (ISO 10303-21), packed. */
  readonly file: string
  /** Which of its solids, from 0. */
  readonly solid: number
  readonly frame: ImportFrame
  /** How far it goes along the axis and out from it, and how near it comes to it, in mm. */
  readonly from: number
  readonly to: number
  readonly radius: number
  readonly inner: number
  /**
   * Its half-section as far as it is turned, piece after piece: x and y of both ends, and of an arc
   * those of its centre and 1 where it goes counter-clockwise, of a free curve those of its two
   * handles; none where it is not turned.
   */
  readonly outline: readonly (readonly number[])[]
  /**
   * Its plane faces, in the file's own directions: the number of the face from 1, x, y and z of a
   * place on it in mm, and those of its normal into the material.
   */
  readonly planes: readonly (readonly number[])[]
}

/** Triangles that came in a file, to go by. */
export interface MeshStep extends AnyBodyStep {
  readonly kind: 'mesh'
  /** The triangles, packed. */
  readonly mesh: string
  /** Which of the file's directions lies along the axis. */
  readonly lies: 'x' | 'y' | 'z'
  /** What its lengths are multiplied by; empty for 1. */
  readonly scale: string
  /** Where it stands: to the right, and about the axis. */
  readonly along: string
  readonly turn: string
}

export type BodyStep = MirrorStep | MoveStep | CombineStep | ImportStep | MeshStep
