import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { deflateSync, strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import {
  addStep,
  bringMeshes,
  createPart,
  creased,
  evaluate,
  latheMesh,
  meshInPart,
  meshedBodies,
  offeredStep,
  packMesh,
  packText,
  perform,
  place,
  readMeshes,
  readPartFile,
  unpackMesh,
  unpackText,
  writePartFile,
  writeStl,
  METRIC,
  type BareMesh,
  type ForeignMesh,
  type Part,
} from '../src'
import { write3mf } from '../src/formats/threeMf'
import { must } from './support/parts'
import { rectangle } from './support/sections'

/** A disc of ⌀20 × 5 with a bore of ⌀8. */
const WASHER = rectangle(0, 4, 5, 10)
const washer = latheMesh(WASHER, 0.01)

/** What triangles enclose, by the divergence theorem, in mm³. */
function volumeOf({ positions, indices }: BareMesh): number {
  const at = (i: number): number[] => {
    const v = 3 * (indices[i] ?? 0)
    return [positions[v] ?? 0, positions[v + 1] ?? 0, positions[v + 2] ?? 0]
  }
  let six = 0
  for (let i = 0; i < indices.length; i += 3) {
    const [[a = 0, b = 0, c = 0], [d = 0, e = 0, f = 0], [g = 0, h = 0, k = 0]] = [
      at(i),
      at(i + 1),
      at(i + 2),
    ] as [number[], number[], number[]]
    six += a * (e * k - f * h) - b * (d * k - f * g) + c * (d * h - e * g)
  }
  return six / 6
}
function read(bytes: Uint8Array, name = 'washer.stl'): readonly ForeignMesh[] {
  const result = readMeshes(bytes, name)
  if (!result.ok) throw new Error(result.problem.message)
  return result.value
}
function refused(bytes: Uint8Array, name = 'washer.stl'): string {
  const result = readMeshes(bytes, name)
  return result.ok ? '' : `${result.problem.message} ${result.problem.mend}`
}
const CUBE = ['0 0 0', '1 0 0', '1 1 0', '0 1 0', '0 0 1', '1 0 1', '1 1 1', '0 1 1']
const SIDES = [
  ['0 2 1', '0 3 2', '4 5 6', '4 6 7', '0 1 5', '0 5 4'],
  ['1 2 6', '1 6 5', '2 3 7', '2 7 6', '3 0 4', '3 4 7'],
].flat()
/** A model with a cube of 1, in its unit, under an id. */
const cube = (id: number, more = ''): string => {
  const vertices = CUBE.map((v) => v.split(' ')).map(
    ([x, y, z]) => `<vertex x="${x}" y="${y}" z="${z}"/>`,
  )
  const triangles = SIDES.map((t) => t.split(' ')).map(
    ([a, b, c]) => `<triangle v1="${a}" v2="${b}" v3="${c}"/>`,
  )
  return `<object id="${id}" type="model"${more}><mesh><vertices>${vertices.join('')}</vertices><triangles>${triangles.join('')}</triangles></mesh></object>`
}
const model = (resources: string, build: string, unit = 'millimeter'): string =>
  `<?xml version="1.0"?><model unit="${unit}" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02" xmlns:p="http://schemas.microsoft.com/3dmanufacturing/production/2015/06"><resources>${resources}</resources><build>${build}</build></model>`
const packed = (text: string, more: Record<string, string> = {}): Uint8Array =>
  zipSync({
    '3D/3dmodel.model': strToU8(text),
    ...Object.fromEntries(Object.entries(more).map(([path, t]) => [path, strToU8(t)])),
  })

describe('an STL file', () => {
  it('that was written here is read back, its equal places one', () => {
    const [mesh] = read(writeStl([washer], 'Washer'))
    expect(mesh?.name).toBe('washer')
    expect(mesh && volumeOf(mesh)).toBeCloseTo(volumeOf(washer), 2)
    expect(mesh?.positions.length).toBeLessThan(washer.positions.length)
  })

  it('is read in its text form too, under its own name', () => {
    const lines = SIDES.map((t) => {
      const corners = t.split(' ').map((i) => `vertex ${CUBE[Number(i)]}`)
      return `facet normal 0 0 0\nouter loop\n${corners.join('\n')}\nendloop\nendfacet`
    })
    const text = `solid Float stop\n${lines.join('\n')}\nendsolid Float stop\n`
    const [mesh] = read(strToU8(text))
    expect(mesh?.name).toBe('Float stop')
    expect(mesh && volumeOf(mesh)).toBeCloseTo(1, 9)
    expect(refused(strToU8(text.slice(0, 400)))).toContain('stops before it is complete')
  })

  it('that is no such file is refused with a mend', () => {
    expect(refused(strToU8('nonsense'))).toContain('neither an STL file nor a 3MF file')
    expect(refused(new Uint8Array(0))).toContain('neither')
    expect(refused(new Uint8Array(84))).toContain('no triangles')
    const whole = writeStl([washer], 'Washer')
    expect(refused(whole.slice(0, 2000))).toContain('stops before it is complete')
    const broken = whole.slice()
    new DataView(broken.buffer).setFloat32(84 + 12, Number.NaN, true)
    expect(refused(broken)).toContain('no number')
  })
})

describe('a 3MF file', () => {
  it('that was written here is read back with names and colours', () => {
    const bodies = [
      { name: 'Washer', colour: '#aa5500', look: 'metal' as const, mesh: washer },
      { name: 'Ring & rod', colour: '#00aa55', look: 'metal' as const, mesh: washer },
    ]
    const meshes = read(write3mf(bodies, 'Washers'), 'washers.3mf')
    expect(meshes.map((m) => [m.name, m.colour])).toEqual([
      ['Washer', '#aa5500'],
      ['Ring & rod', '#00aa55'],
    ])
    expect(meshes[1] && volumeOf(meshes[1])).toBeCloseTo(volumeOf(washer), 2)
  })

  it('is taken in its unit, its components where they stand', () => {
    const inch = read(packed(model(cube(1), '<item objectid="1"/>', 'inch')))
    expect(inch[0] && volumeOf(inch[0])).toBeCloseTo(25.4 ** 3, 2)
    const two = `${cube(1)}<object id="2"><components><component objectid="1"/><component objectid="1" transform="0 1 0 -1 0 0 0 0 1 5 0 0"/></components></object>`
    const [pair] = read(
      packed(model(two, '<item objectid="2" transform="2 0 0 0 2 0 0 0 2 0 0 1"/>')),
    )
    expect(pair && volumeOf(pair)).toBeCloseTo(16, 5)
    const xs = pair ? [...pair.positions].filter((_, i) => i % 3 === 0) : []
    // The second is turned a quarter, to −x, and moved by 5; both are doubled.
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([0, 10])
    const zs = pair ? [...pair.positions].filter((_, i) => i % 3 === 2) : []
    expect([Math.min(...zs), Math.max(...zs)]).toEqual([1, 3])
  })

  it('has the colours of colour groups: its own, those of most triangles, those of components', () => {
    const tones =
      '<m:colorgroup id="7"><m:color color="#AA5500FF"/><m:color color="#00aa55"/></m:colorgroup>'
    const colourOf = (objects: string, id: string): string | undefined =>
      read(packed(model(tones + objects, `<item objectid="${id}"/>`)))[0]?.colour
    const plain = cube(1)
    expect(colourOf(plain, '1')).toBe('')
    const own = plain.replace('<object id="1"', '<object id="1" pid="7" pindex="1"')
    expect(colourOf(own, '1')).toBe('#00aa55')
    let at = 0
    const painted = plain.replace(
      /<triangle /g,
      () => `<triangle pid="7" p1="${at++ < 4 ? 1 : 0}" `,
    )
    expect(colourOf(painted, '1')).toBe('#aa5500')
    const group = '<object id="2"><components><component objectid="1"/></components></object>'
    expect(colourOf(own + group, '2')).toBe('#00aa55')
  })

  it('may have its objects in files beside it', () => {
    const main =
      '<object id="9"><components><component p:path="/3D/cube.model" objectid="1"/></components></object>'
    const [mesh] = read(
      packed(model(main, '<item objectid="9"/>'), { '3D/cube.model': model(cube(1), '') }),
    )
    expect(mesh && volumeOf(mesh)).toBeCloseTo(1, 6)
  })

  it('that is broken is refused with a mend', () => {
    const item = '<item objectid="1"/>'
    expect(refused(strToU8('PK\u0003\u0004 and no more'))).toContain('cannot be unpacked')
    expect(refused(packed('no xml at all'))).toContain('missing or broken')
    expect(refused(packed(model('', item)))).toContain('missing or broken')
    expect(refused(packed(model(cube(1).replace('v3="1"', 'v3="99"'), item)))).toContain('broken')
    expect(refused(packed(model(cube(1).replace('x="1"', 'x="one"'), item)))).toContain('broken')
    const circle = '<object id="1"><components><component objectid="1"/></components></object>'
    expect(refused(packed(model(circle, item)))).toContain('broken')
    expect(refused(packed(model('<object id="1"><mesh/></object>', item)))).toContain(
      'no triangles',
    )
  })
})

describe('a mesh to go by', () => {
  const brought = (): Part =>
    must(createPart({ name: 'Float stop' }), bringMeshes(read(writeStl([washer], 'Washer'))))

  it('is packed and unpacked as it is', () => {
    const mesh = {
      positions: Float32Array.of(0, 1, 2, 3, 4, 5, 6, 7, 8.5),
      indices: Uint32Array.of(0, 1, 2),
    }
    expect(unpackMesh(packMesh(mesh))).toEqual(mesh)
    const broken = packMesh({ ...mesh, indices: Uint32Array.of(0, 1, 3) })
    expect(() => unpackMesh(broken)).toThrow('broken')
    expect(() => unpackMesh('')).toThrow()
    expect(unpackText(packText('Skerry Point'))).toBe('Skerry Point')
  })

  it('of more triangles than a file may bring is none', () => {
    const mesh = (triangles: number): BareMesh => ({
      positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0),
      indices: Uint32Array.from({ length: 3 * triangles }, (_, i) => i % 3),
    })
    expect(unpackMesh(packMesh(mesh(200_000))).indices.length).toBe(600_000)
    expect(() => unpackMesh(packMesh(mesh(200_001)))).toThrow('too many triangles')
  })

  it('that holds more than a part can is not unpacked', () => {
    // Ninety million noughts shrink to a few hundred thousand bytes.
    const bomb = deflateSync(new Uint8Array(90_000_000), { level: 1 })
    const packed = Buffer.from(bomb).toString('base64')
    expect(packed.length).toBeLessThan(4_000_000)
    expect(() => unpackText(packed)).toThrow('more than a part can')
  }, 30_000)

  it('is a body of its own: not weighed, not handed over, kept in the file', () => {
    const part = brought()
    expect(part.bodies.map((b) => [b.name, b.reference])).toEqual([
      ['body 1', false],
      ['washer', true],
    ])
    const state = evaluate(part).bodies[1]
    expect(state?.mass).toBe(0)
    expect(state?.mesh && volumeOf(meshInPart(state.mesh))).toBeCloseTo(volumeOf(washer), 2)
    expect(meshedBodies(evaluate(part), 0.1)).toEqual([])
    const again = readPartFile(writePartFile(part))
    expect(again.ok && again.value).toEqual(part)
    // Twice the same is told apart.
    const twice = must(part, bringMeshes(read(writeStl([washer], 'Washer'))))
    expect(twice.bodies.map((b) => b.name)).toEqual(['body 1', 'washer', 'washer 2'])
  })

  it('is laid along the axis, scaled, moved and turned', () => {
    const [step] = brought().route
    if (step?.kind !== 'mesh') throw new Error('there is no mesh')
    const placed = (more: object) => {
      const part = { ...brought(), route: [{ ...step, ...more }] } as Part
      const { bodies, steps } = evaluate(part)
      return { body: bodies[1], problem: steps[0]?.problem?.message ?? '' }
    }
    const boxOf = (more: object): number[][] => {
      const { body } = placed(more)
      const { positions } = body?.mesh ? meshInPart(body.mesh) : { positions: new Float32Array() }
      return [0, 1, 2].map((k) => {
        const own = [...positions].filter((_, i) => i % 3 === k)
        return [Math.min(...own), Math.max(...own)].map((x) => Math.round(100 * x) / 100 + 0)
      })
    }
    expect(boxOf({})).toEqual([
      [-10, 10],
      [-10, 10],
      [0, 5],
    ])
    expect(boxOf({ along: '7', scale: '2' })).toEqual([
      [-20, 20],
      [-20, 20],
      [7, 17],
    ])
    // The file's x lies along the axis: its z, the washer's own, is then across it.
    expect(boxOf({ lies: 'x' })).toEqual([
      [-10, 10],
      [0, 5],
      [-10, 10],
    ])
    expect(boxOf({ lies: 'y' })).toEqual([
      [0, 5],
      [-10, 10],
      [-10, 10],
    ])
    expect(boxOf({ lies: 'y', turn: '90' })[1]).toEqual([0, 5])
    expect(placed({ scale: '0' }).problem).toContain('greater than zero')
    expect(placed({ mesh: 'no mesh' }).problem).toContain('cannot be read any more')
    expect(placed({ body: 'gone' }).problem).toContain('body is gone')
  })

  it('takes no step, and no second mesh', () => {
    const part = brought()
    const body = part.bodies[1]?.id ?? ''
    const bored = must(
      part,
      addStep({
        ...offeredStep('bore', body, { regions: [] }, undefined, METRIC),
        ...{ diameter: '3' },
      }),
    )
    expect(evaluate(bored).steps.at(-1)?.problem?.message).toContain('a mesh to go by')
    const [step] = part.route
    const again = { ...part, route: [...part.route, { ...step, id: 'step99' }] } as Part
    expect(evaluate(again).steps.at(-1)?.problem?.message).toContain('something else already')
  })

  it('that is too large to keep is refused', () => {
    // Numbers without order do not shrink.
    let seed = 1
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647
    const positions = Float32Array.from({ length: 1_200_000 }, random)
    const mesh = { name: 'Cloud', colour: '', positions, indices: Uint32Array.of(0, 1, 2) }
    const result = perform(createPart({ name: 'Cloud' }), bringMeshes([mesh]))
    expect(result.ok ? '' : result.problem.message).toContain('too large to be kept')
  })
})

describe('a mesh as it is shown', () => {
  it('is smooth round the axis, with lines at its edges', () => {
    const [mesh] = read(writeStl([washer], 'Washer'))
    if (!mesh) throw new Error('there is no mesh')
    const shown = creased(mesh)
    const radial = place(0, 0, 0)
    for (let i = 0; i < shown.normals.length; i += 3) {
      const [x = 0, y = 0, z = 0] = shown.normals.subarray(i, i + 3)
      // Every normal lies along the axis, or out from it.
      expect(Math.min(Math.abs(z), Math.hypot(x, y))).toBeLessThan(1e-3)
      expect(Math.hypot(x - radial.x, y, z)).toBeCloseTo(1, 5)
    }
    const lengths = Array.from({ length: shown.edges.length / 6 }, (_, i) => {
      const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = shown.edges.subarray(6 * i, 6 * i + 6)
      return Math.hypot(a - d, b - e, c - f)
    })
    const sum = lengths.reduce((all, l) => all + l, 0)
    expect(sum).toBeCloseTo(2 * Math.PI * (20 + 8), 0)
  })

  it('has a line round what is open', () => {
    const one = {
      positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0),
      indices: Uint32Array.of(0, 1, 2),
    }
    expect(creased(one).edges).toHaveLength(18)
  })
})

describe('files as other programs write them', () => {
  const fileCalled = (name: string): Uint8Array =>
    new Uint8Array(readFileSync(join(import.meta.dirname, 'files', name)))

  it.each([
    ['upper.stl', 'text in capitals'],
    ['trailing.stl', 'bytes after the last triangle'],
    ['solid-trailing.stl', 'the same, with a heading like that of the text form'],
    ['utf16.3mf', 'a model in UTF-16'],
    ['decoy.3mf', 'an older model beside the one the package names'],
    ['mirror.3mf', 'a mirrored part'],
  ])('%s: %s is read as it is meant, right side out', (name) => {
    const meshes = read(fileCalled(name), name)
    expect(meshes).toHaveLength(1)
    const [mesh] = meshes
    expect(mesh && volumeOf(mesh)).toBeCloseTo(1000, 6)
  })

  it('a required extension that is not known is refused by its name', () => {
    expect(refused(fileCalled('required-ext.3mf'), 'a.3mf')).toBe(
      'This file requires an extension that is not read here: beamlattice. Write it as a plain mesh.',
    )
  })

  it('so is an unknown unit', () => {
    expect(refused(fileCalled('unknownunit.3mf'), 'a.3mf')).toContain(
      'in “parsec”, which is no unit',
    )
  })

  it('components within components do not grow without end', () => {
    const core = 'xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"'
    const many = (id: number, of: number): string =>
      `<object id="${id}"><components>${`<component objectid="${of}"/>`.repeat(30)}</components></object>`
    const mesh =
      '<object id="1"><mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="1" y="0" z="0"/><vertex x="0" y="1" z="0"/></vertices><triangles><triangle v1="0" v2="1" v3="2"/></triangles></mesh></object>'
    const objects = mesh + [2, 3, 4, 5, 6].map((i) => many(i, i - 1)).join('')
    const model = `<model unit="millimeter" ${core}><resources>${objects}</resources><build><item objectid="6"/></build></model>`
    expect(refused(zipSync({ '3D/3dmodel.model': strToU8(model) }), 'a.3mf')).toContain('triangles')
  })

  it('a count of more triangles than are taken is told before they are read', () => {
    const bytes = new Uint8Array(84 + 50 * 200_001)
    new DataView(bytes.buffer).setUint32(80, 200_001, true)
    expect(refused(bytes)).toContain('200001 triangles; at most 200000')
  })
})
