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

type ShapeKind = 'FACE' | 'EDGE' | 'SOLID' | 'VERTEX'

/** The parts of a kind that a shape is made of, one after another; shared ones come again. */
export function* partsOf(
  oc: OpenCascade,
  shape: Shape,
  kind: ShapeKind,
  scope: Scope,
): Generator<Shape> {
  const found = scope.own(new oc.TopExp_Explorer(shape, oc.TopAbs_ShapeEnum[`TopAbs_${kind}`]))
  for (; found.More(); found.Next()) yield scope.own(found.Current())
}
