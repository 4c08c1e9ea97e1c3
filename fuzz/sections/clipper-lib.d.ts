/** The part of the clipping package that is used here; it ships without types. */
declare module 'clipper-lib' {
  type Path = { X: number; Y: number }[]
  interface Clipper {
    AddPaths(paths: readonly Path[], type: number, closed: boolean): boolean
    Execute(clip: number, solution: Path[], subjectFill: number, clipFill: number): boolean
  }
  interface ClipperOffset {
    AddPath(path: Path, join: number, end: number): void
    AddPaths(paths: readonly Path[], join: number, end: number): void
    Execute(solution: Path[], by: number): void
  }
  const library: {
    readonly Clipper: { new (): Clipper; Area(path: Path): number }
    readonly ClipperOffset: new (mitreLimit: number, arcTolerance: number) => ClipperOffset
    readonly ClipType: Readonly<Record<'ctUnion' | 'ctDifference' | 'ctIntersection', number>>
    readonly PolyType: Readonly<Record<'ptSubject' | 'ptClip', number>>
    readonly PolyFillType: Readonly<Record<'pftNonZero', number>>
    readonly JoinType: Readonly<Record<'jtRound', number>>
    readonly EndType: Readonly<Record<'etClosedPolygon' | 'etOpenRound', number>>
  }
  export default library
}
