/** Where the triangles of a mesh meet within a face, to find its outline from any side. */
export interface MeshBends {
  /** Two places per bend, x, y, z each. */
  readonly places: Float32Array
  /** The normals of its two triangles, x, y, z each. */
  readonly normals: Float32Array
}

/** Triangles of a solid, in mm, split where normals change; watertight once equal places are one. */
export interface SolidMesh {
  /** x, y, z per vertex */
  readonly positions: Float32Array
  /** unit normals, out of the material */
  readonly normals: Float32Array
  /** three vertices per triangle, counter-clockwise seen from outside */
  readonly indices: Uint32Array
  /** x, y, z pairs: line segments along the edges */
  readonly edges: Float32Array
  /** the faces by name, each with its first index and count in `indices` */
  readonly faces: readonly {
    readonly name: string
    readonly start: number
    readonly count: number
  }[]
  /** Of a solid that is no full turn, its edges by the two faces that meet, each with its first number in `edges` and their count. */
  readonly rims?: readonly {
    readonly key: string
    readonly start: number
    readonly count: number
  }[]
  /** Where they were found already: that takes a while. */
  readonly bends?: MeshBends
}
