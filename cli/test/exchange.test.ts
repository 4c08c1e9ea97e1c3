import { beforeAll, describe, expect, it } from 'vitest'
import initKernel from 'replicad-opencascadejs'
import { line, arc, vec, type Piece } from '@lathica/core/geometry'
import { profileOf, solidProperties } from '@lathica/core/section'
import { createPart, type Part } from '@lathica/core/part'
import { evaluate, type PartState } from '@lathica/core/route'
import { needsKernel, writeStep } from '@lathica/core/formats'
import { builtGeometry, loadKernel, settlePlans, type Kernel as Builder } from '@lathica/kernel'
import { demoNames, demoPart } from '../../core/test/support/demo'

type Kernel = Awaited<ReturnType<typeof initKernel>>

/** What a solid kernel makes of an exchange file. */
interface Read {
  readonly solids: number
  readonly valid: boolean
  readonly volume: number
  readonly area: number
}

let kernel: Kernel
let builder: Builder
beforeAll(async () => {
  kernel = await initKernel({ print() {}, printErr() {} })
  builder = await loadKernel()
})

/** @param cut whether some faces end where cylinders meet, which the plain rule takes off by 1e-6 */
function readBack(text: string, cut = false): Read {
  kernel.FS.writeFile('/part.step', text)
  const reader = new kernel.STEPControl_Reader()
  reader.ReadFile('/part.step')
  reader.TransferRoots(new kernel.Message_ProgressRange())
  const shape = reader.OneShape()
  const [inside, surface] = [new kernel.GProp_GProps(), new kernel.GProp_GProps()]
  // The plain rule is exact along whole cubics; refining it is not, by 5e-7. Along curves of several cubics it has to be
  // refined further.
  const several = /\(4(,1)+,4\)/.test(text)
  if (several) kernel.BRepGProp.VolumeProperties(shape, inside, 1e-12, false, false)
  else if (cut) kernel.BRepGProp.VolumeProperties(shape, inside, 1e-9, false, false)
  else kernel.BRepGProp.VolumeProperties(shape, inside, false, false, false)
  kernel.BRepGProp.SurfaceProperties(shape, surface, 1e-9, false)
  const explorer = new kernel.TopExp_Explorer(shape, kernel.TopAbs_ShapeEnum.TopAbs_SOLID)
  let solids = 0
  for (; explorer.More(); explorer.Next()) solids++
  const valid = new kernel.BRepCheck_Analyzer(shape, true).IsValid()
  return { solids, valid, volume: inside.Mass(), area: surface.Mass() }
}

const AT = new Date('2026-11-02T10:42:00Z')

/** Full turns are written by themselves, all else by the kernel that builds it. */
function written(state: PartState): string {
  const text = needsKernel(state) ? builtGeometry(builder, state, 0.05).step : writeStep(state, AT)
  if (text === undefined) throw new Error('there is nothing to write')
  return text
}

describe('exchange files of the demo parts', () => {
  it.each(demoNames)('%s reads back as valid solids of the same volume and area', (name) => {
    const state = settlePlans(demoPart(name), (plan) => builder.weigh(plan))
    const bodies = state.bodies.flatMap((b) => b.solid ?? [])
    const back = readBack(written(state), needsKernel(state))
    expect(back.solids).toBe(bodies.length)
    expect(back.valid).toBe(true)
    expect(back.volume / bodies.reduce((s, b) => s + b.volume, 0)).toBeCloseTo(1, 7)
    expect(back.area / bodies.reduce((s, b) => s + b.area, 0)).toBeCloseTo(1, 7)
  })

  it('says who wrote it, and names parts and bodies in any letters', () => {
    const part = { ...demoPart('guide-roller'), name: "Führungsrolle 'A'" }
    const text = written(evaluate(part))
    expect(text.startsWith('ISO-10303-21;\nHEADER;')).toBe(true)
    expect(text).toContain("PRODUCT('F\\X2\\00FC\\X0\\hrungsrolle ''A'''")
    expect(text).toContain("FILE_NAME('F\\X2\\00FC\\X0\\hrungsrolle ''A''','2026-11-02T10:42:00'")
    expect(text).toContain("PRODUCT('ring'")
    expect(text).toContain("MANIFOLD_SOLID_BREP('ring'")
    expect(text).toContain("MANIFOLD_SOLID_BREP('roller'")
    expect(readBack(text).solids).toBe(2)
    expect(writeStep(evaluate(createPart({ name: 'Float' })), AT)).toBeUndefined()
  })

  it.each([
    ['guide-roller', 'of full turns', writeStep],
    [
      'guide-roller',
      'by the kernel',
      (state: PartState) => builtGeometry(builder, state, 0.05).step,
    ],
  ])(
    '%s, written %s, has a product for each body under that of the part',
    (demo, _words, write) => {
      const part = demoPart(demo)
      const [first, second] = part.bodies
      if (!first || !second) throw new Error('the roller has two bodies')
      const state = evaluate({
        ...part,
        name: "Rolle 'A' \\ 中",
        bodies: [
          { ...first, name: "roller's \\X2\\" },
          { ...second, name: 'ring ⌀' },
        ],
      })
      const text = (write(state, AT) ?? '').replace(/\s+/g, '')
      const products = [...text.matchAll(/=PRODUCT\('((?:[^']|'')*)'/g)].map((m) => m[1])
      expect(products.sort()).toEqual(
        ["Rolle''A''\\\\\\X2\\4E2D\\X0\\", "roller''s\\\\X2\\\\", 'ring\\X2\\2300\\X0\\'].sort(),
      )
      expect(text.match(/NEXT_ASSEMBLY_USAGE_OCCURRENCE/g)).toHaveLength(2)
      expect(text).toContain('AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF')
      const back = readBack(write(state, AT) ?? '')
      expect(back).toMatchObject({ solids: 2, valid: true })
      // What a reader may compare with: of each body, together what the kernel makes of the file.
      const told = (kind: string): number =>
        [...text.matchAll(new RegExp(`${kind}_MEASURE\\(([0-9.E+-]+)\\),`, 'g'))].reduce(
          (sum, m) => sum + Number(m[1]),
          0,
        )
      expect(told('VOLUME') / back.volume).toBeCloseTo(1, 9)
      expect(told('AREA') / back.area).toBeCloseTo(1, 9)
      expect(text.match(/'centroid'/g)?.length).toBe(4)
    },
  )
})

/** A part whose only body has a section of these pieces. */
function partOf(pieces: readonly Piece[]): { part: Part; volume: number; area: number } {
  const points = pieces.map((p, i) => ({ id: `p${i}`, ...p.from }))
  const centres = pieces.flatMap((p, i) => (p.kind === 'arc' ? [{ id: `c${i}`, ...p.centre }] : []))
  const entities = pieces.map((p, i) => {
    const ends = { from: `p${i}`, to: `p${(i + 1) % pieces.length}`, role: 'outline' as const }
    return p.kind !== 'arc'
      ? { id: `e${i}`, kind: 'line' as const, ...ends }
      : {
          id: `e${i}`,
          kind: 'arc' as const,
          centre: `c${i}`,
          counterClockwise: p.counterClockwise,
          ...ends,
        }
  })
  const base = createPart({ name: 'Float' })
  const [sketch] = base.sketches
  if (!sketch) throw new Error('a part has a profile')
  const part: Part = {
    ...base,
    sketches: [{ ...sketch, points: [...points, ...centres], entities, nextId: 99 }],
    route: [
      {
        ...{ kind: 'revolve', id: 'step3', number: 10, aside: false, sketch: sketch.id },
        ...{
          regions: 'all',
          effect: 'add',
          body: 'body1',
          axis: 'axis',
          turn: '',
          turnTo: '',
          side: 'one' as const,
          back: '',
          facets: '',
          facetTo: 'flats' as const,
          phase: '',
        },
      },
    ],
  }
  const named = pieces.map((piece, i) => ({
    piece,
    name: { step: 's', entity: `e${i}`, role: 'drawn' as const },
  }))
  const props = solidProperties(profileOf(named, 's').section)
  return { part, volume: props?.volume ?? 0, area: props?.area ?? 0 }
}

describe('an exchange file of any surface', () => {
  const cases: Readonly<Record<string, readonly Piece[]>> = {
    'a ball': [arc(vec(10, 0), vec(-10, 0), vec(0, 0), true), line(vec(-10, 0), vec(10, 0))],
    'a ball with a ball inside': [
      arc(vec(10, 0), vec(-10, 0), vec(0, 0), true),
      line(vec(-10, 0), vec(-6, 0)),
      arc(vec(-6, 0), vec(6, 0), vec(0, 0), false),
      line(vec(6, 0), vec(10, 0)),
    ],
    'a cone to its tip': [
      line(vec(0, 0), vec(20, 0)),
      line(vec(20, 0), vec(0, 8)),
      line(vec(0, 8), vec(0, 0)),
    ],
    'a ring of two arcs': [
      arc(vec(-3, 20), vec(3, 20), vec(0, 20), true),
      arc(vec(3, 20), vec(-3, 20), vec(0, 20), true),
    ],
    'a spindle of one arc about a centre beyond the axis': [
      arc(vec(12, 0), vec(-12, 0), vec(0, -9), true),
      line(vec(-12, 0), vec(12, 0)),
    ],
    'a bell with a hollow round': [
      line(vec(0, 0), vec(20, 0)),
      line(vec(20, 0), vec(20, 4)),
      arc(vec(20, 4), vec(8, 16), vec(20, 16), false),
      line(vec(8, 16), vec(0, 16)),
      line(vec(0, 16), vec(0, 0)),
    ],
    'a tube with a countersink': [
      line(vec(0, 5), vec(20, 5)),
      line(vec(20, 5), vec(24, 9)),
      line(vec(24, 9), vec(24, 12)),
      line(vec(24, 12), vec(0, 12)),
      line(vec(0, 12), vec(0, 5)),
    ],
  }
  it.each(Object.entries(cases))('%s', (_what, pieces) => {
    const { part, volume, area } = partOf(pieces)
    expect(volume).toBeGreaterThan(0)
    const back = readBack(written(evaluate(part)))
    expect(back).toMatchObject({ solids: 1, valid: true })
    expect(back.volume / volume).toBeCloseTo(1, 8)
    expect(back.area / area).toBeCloseTo(1, 8)
  })
})
