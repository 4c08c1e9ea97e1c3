import { place, type Place } from '@lathica/core/geometry'
import { roundAbout, type Line, type SpaceSpline } from '@lathica/core/recover'
import type { OpenCascade, Scope } from './openCascade'

/** What a surface tells of itself. */
type Surface = InstanceType<OpenCascade['BRepAdaptor_Surface']>

/** The normal of a plane; the line that a surface of another kind is turned about, if it tells one. */
export function lineOf(oc: OpenCascade, surface: Surface, scope: Scope): Line | undefined {
  const { GeomAbs_Cone, GeomAbs_Torus } = oc.GeomAbs_SurfaceType
  const type = surface.GetType()
  if (type === GeomAbs_Cone || type === GeomAbs_Torus) {
    // The kernel as it is built here does not tell these, but a line round them does.
    const [u0, u1] = [surface.FirstUParameter(), surface.LastUParameter()]
    const v = (surface.FirstVParameter() + surface.LastVParameter()) / 2
    return roundAbout(placesAlong(surface, (t) => [u0 + (u1 - u0) * t, v]))
  }
  const told = (shape: { Axis(): Axis; delete(): void }): Axis => scope.own(scope.own(shape).Axis())
  const axis = ((): Axis | undefined => {
    const types = oc.GeomAbs_SurfaceType
    switch (surface.GetType()) {
      case types.GeomAbs_Plane:
        return told(surface.Plane())
      case types.GeomAbs_Cylinder:
        return told(surface.Cylinder())
      case types.GeomAbs_SurfaceOfRevolution:
        return scope.own(surface.AxeOfRevolution())
      default:
        return undefined
    }
  })()
  return (
    axis && {
      at: placeOf(scope.own(axis.Location())),
      along: placeOf(scope.own(axis.Direction())),
    }
  )
}

type Axis = ReturnType<Surface['AxeOfRevolution']>

/** How many places along what was turned tell its shape. */
const PLACES = 65

/** Lines on a surface of which one may be what is turned to make it, as far as a face goes. */
export function linesOn(oc: OpenCascade, surface: Surface): Float64Array[] {
  const types = oc.GeomAbs_SurfaceType
  const [u0, u1] = [surface.FirstUParameter(), surface.LastUParameter()]
  const [v0, v1] = [surface.FirstVParameter(), surface.LastVParameter()]
  switch (surface.GetType()) {
    case types.GeomAbs_SurfaceOfRevolution:
      return [placesAlong(surface, (t) => [u0, v0 + (v1 - v0) * t])]
    // Of what is told by poles either way may go round.
    case types.GeomAbs_BSplineSurface:
    case types.GeomAbs_BezierSurface:
      return [
        placesAlong(surface, (t) => [(u0 + u1) / 2, v0 + (v1 - v0) * t]),
        placesAlong(surface, (t) => [u0 + (u1 - u0) * t, (v0 + v1) / 2]),
      ]
    default:
      return []
  }
}

/** The curve that was turned to make a surface, where it is one of poles without weights. */
export function splineOf(oc: OpenCascade, surface: Surface, scope: Scope): SpaceSpline | undefined {
  if (surface.GetType() !== oc.GeomAbs_SurfaceType.GeomAbs_SurfaceOfRevolution) return undefined
  const basis = scope.own(surface.BasisCurve())
  if (basis.GetType() !== oc.GeomAbs_CurveType.GeomAbs_BSplineCurve) return undefined
  const curve = scope.own(basis.BSpline())
  if (curve.IsRational() || curve.IsPeriodic() || curve.Degree() > 3) return undefined
  const count = (many: number): number[] => Array.from({ length: many }, (_, i) => i + 1)
  return {
    degree: curve.Degree(),
    poles: count(curve.NbPoles()).map((i) => placeOf(scope.own(curve.Pole(i)))),
    knots: count(curve.NbKnots()).flatMap((i) =>
      Array.from({ length: curve.Multiplicity(i) }, () => curve.Knot(i)),
    ),
    ...{ from: surface.FirstVParameter(), to: surface.LastVParameter() },
  }
}

function placesAlong(
  surface: Surface,
  place: (share: number) => readonly [number, number],
): Float64Array {
  const places = new Float64Array(3 * PLACES)
  for (let i = 0; i < PLACES; i++) {
    const at = surface.Value(...place(i / (PLACES - 1)))
    places.set([at.X(), at.Y(), at.Z()], 3 * i)
    at.delete()
  }
  return places
}

/** A place or a direction of the kernel's. */
export const placeOf = (p: { X(): number; Y(): number; Z(): number }): Place =>
  place(p.X(), p.Y(), p.Z())
