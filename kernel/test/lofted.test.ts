import { beforeAll, describe, expect, test } from 'vitest'
import init from 'replicad-opencascadejs'
import { edgesOf, evaluate, nearestOn, packText, recoverPart } from '@lathica/core'
import { createKernel, type Kernel } from '../src/kernel'
import { handleTo } from '../src/named'
import { scoped, type OpenCascade } from '../src/openCascade'
import { writeStepOf } from '../src/write'

let oc: OpenCascade
let kernel: Kernel
beforeAll(async () => {
  oc = await init({ print() {}, printErr() {} })
  kernel = createKernel(oc)
}, 60_000)

/** A solid through circles about a line, as a file: its side is a surface of poles and weights. */
function lofted(
  circles: readonly (readonly [number, number])[],
  ruled: boolean,
  way: readonly [number, number, number] = [0, 0, 1],
): string {
  return scoped((scope) => {
    const maker = scope.own(new oc.BRepOffsetAPI_ThruSections(true, ruled, 1e-9))
    const direction = scope.own(new oc.gp_Dir(...way))
    for (const [at, radius] of circles) {
      const [x, y, z] = way.map((c) => c * at) as [number, number, number]
      const axis = scope.own(new oc.gp_Ax2(scope.own(new oc.gp_Pnt(x, y, z)), direction))
      const circle = scope.own(new oc.gp_Circ(axis, radius))
      const edge = scope.own(scope.own(new oc.BRepBuilderAPI_MakeEdge(circle)).Edge())
      const wire = scope.own(new oc.BRepBuilderAPI_MakeWire(edge))
      maker.AddWire(scope.own(wire.Wire()))
    }
    maker.Build(scope.own(new oc.Message_ProgressRange()))
    const solid = { shape: handleTo(scope.own(maker.Shape())), faces: [] }
    return writeStepOf(oc, [{ name: 'Float', colour: '#888888', solid }], 'Float')
  })
}

const CIRCLES = [
  [0, 8],
  [10, 11],
  [20, 9],
  [30, 14],
] as const

describe('a surface of poles that is turned', () => {
  // Along the file's own axis, and along a line that no other face tells of.
  test.each([[[0, 0, 1]], [[0.6, 0, 0.8]]] as const)(
    'comes back as a free curve of the half-section, turned about %j',
    (way) => {
      const text = lofted(CIRCLES, false, way)
      expect(text).toContain('B_SPLINE_SURFACE')
      const solids = kernel.read(text)
      expect(solids[0]?.faces.map((f) => f.kind).sort()).toEqual(['other', 'plane', 'plane'])
      const found = recoverPart('Float', solids, packText(text))
      expect(found.solids).toEqual([{ isTurned: true, isKept: false }])
      const kinds = found.part.sketches.flatMap((s) => s.entities.map((e) => e.kind))
      expect(kinds.filter((k) => k === 'curve').length).toBeGreaterThan(0)
      expect(kinds.filter((k) => k === 'line')).toHaveLength(2)
      const [body] = evaluate(found.part).bodies
      const edges = body ? edgesOf(body.section) : []
      for (const [at, radius] of CIRCLES) {
        const off = (x: number): number =>
          Math.min(...edges.map((e) => nearestOn(e.piece, { x, y: radius }).distance))
        // Whichever way round the line that was found runs.
        expect(Math.min(off(at), off(-at))).toBeLessThan(1e-4)
      }
      // What the kernel makes round of it by polynomials is round to some millionths.
      expect((body?.solid?.volume ?? 0) / (solids[0]?.volume ?? 1)).toBeCloseTo(1, 5)
    },
  )

  test('that is a cone is a straight line', () => {
    const text = lofted([CIRCLES[0], CIRCLES[3]], true)
    const solids = kernel.read(text)
    const found = recoverPart('Float', solids, packText(text))
    expect(found.solids).toEqual([{ isTurned: true, isKept: false }])
    const kinds = found.part.sketches.flatMap((s) => s.entities.map((e) => e.kind))
    expect(kinds).toEqual(['line', 'line', 'line'])
  })

  test('with other sections than circles is none', () => {
    const text = lofted(CIRCLES, false)
    const [solid] = kernel.read(text)
    if (!solid) throw new Error('there is no solid')
    // The same places, a little out of round.
    const faces = solid.faces.map((f) => ({
      ...f,
      nodes: f.nodes.map((x, i) => (i % 3 === 0 ? 1.001 * x : x)),
    }))
    const { part, solids } = recoverPart('Float', [{ ...solid, faces }], packText(text))
    expect(solids[0]?.isKept).toBe(true)
    expect(part.sketches.flatMap((s) => s.entities.map((e) => e.kind))).not.toContain('curve')
  })
})
