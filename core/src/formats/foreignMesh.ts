import type { BareMesh } from '../solid'

/** A mesh of a file, with what the file says of it. */
export interface ForeignMesh extends BareMesh {
  readonly name: string
  /** as #rrggbb; empty where the file has none */
  readonly colour: string
}

/** More triangles than this are too many to go by. */
export const MOST_TRIANGLES = 200_000
