import { beforeAll, describe, expect, test } from 'vitest'
import init from 'replicad-opencascadejs'
import { arc, line, nearestOn, vec } from '@lathica/core/geometry'
import { edgesOf, profileOf, solidProperties, type SectionEdge } from '@lathica/core/section'
import { packText } from '@lathica/core/solid'
import { evaluate } from '@lathica/core/route'
import { axisOf, recoverPart } from '@lathica/core/recover'
import { createKernel, type Kernel } from '../src/kernel'
import { handleTo } from '../src/named'
import { scoped, type OpenCascade } from '../src/openCascade'
import { writeStepOf } from '../src/write'

let oc: OpenCascade
let kernel: Kernel
beforeAll(async () => {
  oc = await init({ print() {}, printErr() {} })
  kernel = createKernel(oc)
})

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
      expect(found.solids).toMatchObject([{ isTurned: true, isKept: false }])
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

  test('has its axis found by its circles, where no flat face and no other tells it', () => {
    const way = [0.48, 0.6, 0.64] as const
    const text = lofted(CIRCLES.slice(0, 3), false, way)
    const [solid] = kernel.read(text)
    if (!solid) throw new Error('there is no solid')
    // Of the ends nothing is known.
    const faces = solid.faces.filter((f) => f.kind === 'other')
    const axis = axisOf({ ...solid, centre: { x: 3, y: 5, z: 7 }, faces })
    const { x = 0, y = 0, z = 0 } = axis?.along ?? {}
    expect([x, y, z]).toEqual(way.map((w) => expect.closeTo(w, 5) as number))
    expect(Math.hypot(axis?.at.x ?? 9, axis?.at.y ?? 9, axis?.at.z ?? 9)).toBeLessThan(1e-3)
  })

  test('that is a cone is a straight line', () => {
    const text = lofted([CIRCLES[0], CIRCLES[3]], true)
    const solids = kernel.read(text)
    const found = recoverPart('Float', solids, packText(text))
    expect(found.solids).toMatchObject([{ isTurned: true, isKept: false }])
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

  test('and has weights comes back as what it is made of', () => {
    // A funnel: ⌀20 at the right end, ⌀40 at the left, and a quarter of a circle in between.
    const corners = [vec(0, 0), vec(30, 0), vec(30, 10), vec(20, 10), vec(10, 20), vec(0, 20)]
    const edges = corners.map((from, i): SectionEdge => {
      const to = corners[(i + 1) % corners.length] ?? from
      const piece = i === 3 ? arc(from, to, vec(20, 20), false) : line(from, to)
      return { piece, name: { step: 'funnel', entity: `e${i}`, role: 'drawn' } }
    })
    const { section } = profileOf(edges, 'funnel')
    const plan = { base: section, ops: [] }
    const plain = kernel.writeStep(
      [{ bodyId: 'b', name: 'Funnel', colour: '#888888', plan }],
      'Funnel',
    )
    const quarter = [
      [10, 20, 1],
      [10, 10, Math.SQRT1_2],
      [20, 10, 1],
    ] as const
    const text = withWeights(plain, quarter)
    expect(text).toContain('RATIONAL_B_SPLINE_SURFACE')
    expect(text).not.toMatch(/= TOROIDAL_SURFACE/)
    const solids = kernel.read(text)
    const found = recoverPart('Funnel', solids, packText(text))
    expect(found.solids).toMatchObject([{ isTurned: true, isKept: false }])
    const [body] = evaluate(found.part).bodies
    const kinds = found.part.sketches.flatMap((k) => k.entities.map((e) => e.kind))
    expect(kinds.sort()).toEqual(['arc', 'line', 'line', 'line', 'line'])
    const whole = solidProperties(section)?.volume ?? 0
    expect((body?.solid?.volume ?? 0) / whole).toBeCloseTo(1, 9)
  })
})

/**
 * A file with its rings of tubes told by poles and weights instead: round the axis by nine, and along
 * by three that are given as radius, height and weight.
 */
function withWeights(text: string, along: readonly (readonly [number, number, number])[]): string {
  // Where edges lie on the surfaces is told in other terms then: the reader finds that itself.
  const bare = new Map(
    [...text.matchAll(/#(\d+) = (?:SURFACE|SEAM)_CURVE\('',#(\d+),/g)].map((m) => [m[1], m[2]]),
  )
  let next = 1 + Math.max(...[...text.matchAll(/#(\d+) ?=/g)].map((m) => Number(m[1])))
  const points: string[] = []
  const around = Array.from({ length: 9 }, (_, i) => {
    const [angle, isCorner] = [(i * Math.PI) / 4, i % 2 === 1]
    const reach = isCorner ? Math.SQRT2 : 1
    return [reach * Math.cos(angle), reach * Math.sin(angle), isCorner ? Math.SQRT1_2 : 1] as const
  })
  const rows = around.map(([x, y]) =>
    along.map(([radius, z]) => {
      points.push(`#${next} = CARTESIAN_POINT('',(${radius * x},${radius * y},${z}));`)
      return `#${next++}`
    }),
  )
  const weights = around.map(([, , w]) => along.map(([, , v]) => w * v))
  const list = (items: readonly (readonly (string | number)[])[]): string =>
    `(${items.map((row) => `(${row.join(',')})`).join(',')})`
  const surface = [
    '( BOUNDED_SURFACE() ',
    `B_SPLINE_SURFACE(2,2,${list(rows)},.UNSPECIFIED.,.T.,.F.,.F.) `,
    'B_SPLINE_SURFACE_WITH_KNOTS((3,2,2,2,3),(3,3),(0.,0.25,0.5,0.75,1.),(0.,1.),.UNSPECIFIED.) ',
    `GEOMETRIC_REPRESENTATION_ITEM() RATIONAL_B_SPLINE_SURFACE(${list(weights)}) `,
    "REPRESENTATION_ITEM('') SURFACE() )",
  ].join('')
  return text
    .replace(/EDGE_CURVE\('',(#\d+),(#\d+),#(\d+),/g, (whole, from, to, curve) => {
      const own = bare.get(curve as string)
      return own === undefined ? (whole as string) : `EDGE_CURVE('',${from},${to},#${own},`
    })
    .replace(/= TOROIDAL_SURFACE\([^;]*;/, `= ${surface};`)
    .replace(/ENDSEC;\s*END-ISO/, `${points.join('\n')}\nENDSEC;\nEND-ISO`)
}
