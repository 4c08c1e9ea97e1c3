import type { BareMesh } from '../solid'

/** A mesh of a file, with what the file says of it. */
export interface ForeignMesh extends BareMesh {
  readonly name: string
  /** as #rrggbb; empty where the file has none */
  readonly colour: string
}
