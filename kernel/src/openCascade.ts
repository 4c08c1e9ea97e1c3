import type init from 'replicad-opencascadejs'

/** The kernel as it was loaded: Open CASCADE compiled to WebAssembly, unmodified. */
export type OpenCascade = Awaited<ReturnType<typeof init>>
export type Shape = InstanceType<OpenCascade['TopoDS_Shape']>
export type Face = InstanceType<OpenCascade['TopoDS_Face']>
export type Edge = InstanceType<OpenCascade['TopoDS_Edge']>
export type ShapeList = InstanceType<OpenCascade['NCollection_List_TopoDS_Shape']>
export type Point = InstanceType<OpenCascade['gp_Pnt']>

interface Held {
  delete(): void
}

/** Kernel objects that are given back together, whatever happens in between. */
export class Scope {
  private readonly held: Held[] = []

  /** Notes an object to be freed with the scope. */
  own<T extends Held>(object: T): T {
    this.held.push(object)
    return object
  }

  free(): void {
    for (const object of this.held.splice(0).reverse()) object.delete()
  }
}

/** Runs work in a scope of its own, and frees all it held when the work ends or throws. */
export function scoped<T>(work: (scope: Scope) => T): T {
  const scope = new Scope()
  try {
    return work(scope)
  } finally {
    scope.free()
  }
}

/** The shapes in a list, which keeps them. */
export function* shapesIn(oc: OpenCascade, list: ShapeList, scope: Scope): Generator<Shape> {
  const rest = scope.own(new oc.NCollection_List_TopoDS_Shape(list))
  for (; !rest.IsEmpty(); rest.RemoveFirst()) yield scope.own(rest.First())
}

type ShapeKind = 'FACE' | 'EDGE' | 'SHELL' | 'SOLID' | 'VERTEX'

/** The parts of a kind that a shape is made of, one after another; shared ones come again. */
export function* partsOf(
  oc: OpenCascade,
  shape: Shape,
  kind: ShapeKind,
  scope: Scope,
): Generator<Shape> {
  const idle = explorers.get(oc) ?? []
  explorers.set(oc, idle)
  const found = idle.pop() ?? new oc.TopExp_Explorer()
  try {
    const { TopAbs_SHAPE, [`TopAbs_${kind}` as const]: wanted } = oc.TopAbs_ShapeEnum
    found.Init(shape, wanted, TopAbs_SHAPE)
    for (; found.More(); found.Next()) yield scope.own(found.Current())
  } finally {
    found.Clear()
    idle.push(found)
  }
}

/** An explorer does not give back all it takes: it is used again and again. */
const explorers = new WeakMap<OpenCascade, InstanceType<OpenCascade['TopExp_Explorer']>[]>()

/** Several shapes as one; a single one by itself. */
export function compoundOf(oc: OpenCascade, shapes: readonly Shape[], scope: Scope): Shape {
  const [only] = shapes
  if (only && shapes.length === 1) return only
  const compound = scope.own(new oc.TopoDS_Compound())
  const builder = scope.own(new oc.TopoDS_Builder())
  builder.MakeCompound(compound)
  for (const shape of shapes) builder.Add(compound, shape)
  return compound
}
