import { strFromU8, unzipSync } from 'fflate'
import { describe, expect, test } from 'vitest'
import { EXPORTERS, createPart, evaluate, meshedBodies, welded, type Part } from '../src'
import { demoPart } from './support/demo'

const settings = { tolerance: 0.02, at: new Date('2026-11-02T10:42:00Z') }
const bytesOf = (id: string, part: Part): Uint8Array => {
  const made = EXPORTERS.find((e) => e.id === id)?.write(evaluate(part), settings)
  if (!made?.ok || typeof made.value === 'string') throw new Error(`${id} writes bytes`)
  return made.value
}

/** Six times the volume that triangles enclose, summed over corners from the datum. */
function enclosed(positions: readonly number[], indices: readonly number[]): number {
  const at = (i: number): [number, number, number] => {
    const v = 3 * (indices[i] ?? 0)
    return [positions[v] ?? 0, positions[v + 1] ?? 0, positions[v + 2] ?? 0]
  }
  let sum = 0
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [at(i), at(i + 1), at(i + 2)]
    sum +=
      a[0] * (b[1] * c[2] - b[2] * c[1]) +
      a[1] * (b[2] * c[0] - b[0] * c[2]) +
      a[2] * (b[0] * c[1] - b[1] * c[0])
  }
  return sum / 6
}

describe('a file of triangles', () => {
  test.each(['spindle', 'float', 'counterweight', 'winding-grip', 'line-sheave', 'cord-drum'])(
    'of the %s is closed for readers that compare places byte by byte',
    (name) => {
      const bytes = bytesOf('stl', demoPart(name))
      const hex = (from: number): string =>
        Buffer.from(bytes.slice(from, from + 12)).toString('hex')
      const sides = new Map<string, number>()
      for (let at = 84; at < bytes.length; at += 50) {
        const corners = [12, 24, 36].map((k) => hex(at + k))
        corners.forEach((a, i) => {
          const b = corners[(i + 1) % 3] ?? ''
          const [key, way] = a < b ? [`${a} ${b}`, 1] : [`${b} ${a}`, -1]
          sides.set(key, (sides.get(key) ?? 0) + way)
        })
      }
      expect([...sides.values()].filter((n) => n !== 0)).toEqual([])
      const numbers = [...sides.keys()].flatMap((key) => key.match(/[0-9a-f]{8}/g) ?? [])
      expect(numbers).not.toContain('00000080')
    },
  )
})

describe('what is to go by', () => {
  const wheel = demoPart('line-sheave')
  const asReference = { ...wheel, bodies: wheel.bodies.map((b) => ({ ...b, reference: true })) }

  test.each(EXPORTERS.filter((e) => e.of !== 'document').map((e) => [e.id, e] as const))(
    'is in no file: %s',
    (_id, exporter) => {
      const made = exporter.write(evaluate(asReference), settings)
      expect(made.ok ? '' : made.problem.message).toBe(
        'Only what is to go by is there, and that is not handed over.',
      )
    },
  )

  test('is left out beside a body that goes out', () => {
    const both = demoPart('guide-roller')
    const step = (part: Part): number => {
      const made = EXPORTERS.find((e) => e.id === 'step')?.write(evaluate(part), settings)
      const text = made?.ok && typeof made.value === 'string' ? made.value : ''
      return (text.match(/MANIFOLD_SOLID_BREP/g) ?? []).length
    }
    const bodies = both.bodies.map((b, i) => ({ ...b, reference: i === 0 }))
    expect([step(both), step({ ...both, bodies })]).toEqual([
      both.bodies.length,
      both.bodies.length - 1,
    ])
  })
})

describe('a welded mesh', () => {
  test.each(['spindle', 'float', 'bearing-housing', 'winding-grip'])(
    'of the %s has every side of a triangle met once the other way',
    (name) => {
      for (const { mesh } of meshedBodies(evaluate(demoPart(name)), 0.02)) {
        const { positions, indices } = welded(mesh)
        expect(Math.max(...indices)).toBe(positions.length / 3 - 1)
        const sides = new Map<string, number>()
        for (let i = 0; i < indices.length; i += 3) {
          for (const [p, q] of [
            [0, 1],
            [1, 2],
            [2, 0],
          ] as const) {
            const key = `${indices[i + p]} ${indices[i + q]}`
            sides.set(key, (sides.get(key) ?? 0) + 1)
          }
        }
        for (const [key, count] of sides) {
          const [a, b] = key.split(' ')
          expect(count).toBe(1)
          expect(sides.get(`${b} ${a}`)).toBe(1)
        }
      }
    },
  )
})

describe('3MF', () => {
  const part = { ...demoPart('guide-roller'), name: 'Roller <A> & "B"' }
  const files = unzipSync(bytesOf('3mf', part))
  const model = strFromU8(files['3D/3dmodel.model'] ?? new Uint8Array())

  test('is a package with its types, its relation, and one object for each body', () => {
    expect(Object.keys(files).sort()).toEqual([
      '3D/3dmodel.model',
      '[Content_Types].xml',
      '_rels/.rels',
    ])
    expect(model).toContain('unit="millimeter"')
    expect(model).toContain('Roller &lt;A&gt; &amp; &quot;B&quot;')
    expect(model).toContain('<base name="ring" displaycolor="#B07F52FF"/>')
    expect(model.match(/<object /g)).toHaveLength(2)
    expect(model.match(/<item /g)).toHaveLength(2)
  })

  test('holds the volume of every body within its tolerance', () => {
    const volumes = evaluate(part).bodies.map((b) => b.solid?.volume ?? 0)
    const objects = model.split('<object ').slice(1)
    objects.forEach((object, i) => {
      const numbers = (pattern: RegExp): number[] =>
        [...object.matchAll(pattern)].flatMap((m) => m.slice(1, 4).map(Number))
      const positions = numbers(/<vertex x="([^"]+)" y="([^"]+)" z="([^"]+)"/g)
      const indices = numbers(/<triangle v1="(\d+)" v2="(\d+)" v3="(\d+)"/g)
      const share = enclosed(positions, indices) / (volumes[i] ?? 1)
      expect(share).toBeGreaterThan(0.99)
      expect(share).toBeLessThan(1.01)
    })
  })
})

describe('glTF', () => {
  interface Gltf {
    readonly nodes: { name: string; rotation?: number[]; scale?: number[]; children?: number[] }[]
    readonly meshes: {
      name: string
      primitives: { attributes: { POSITION: number }; indices: number }[]
    }[]
    readonly materials: { name: string; pbrMetallicRoughness: { metallicFactor: number } }[]
    readonly accessors: { bufferView: number; count: number; min?: number[]; max?: number[] }[]
    readonly bufferViews: { byteOffset: number; byteLength: number; target: number }[]
    readonly buffers: { byteLength: number }[]
  }
  function opened(part: Part): { json: Gltf; data: Uint8Array; file: Uint8Array } {
    const file = bytesOf('glb', part)
    const view = new DataView(file.buffer, file.byteOffset)
    const length = view.getUint32(12, true)
    const json = JSON.parse(strFromU8(file.subarray(20, 20 + length))) as Gltf
    return { json, data: file.subarray(28 + length), file }
  }

  test('is one file whose lengths add up, in metres with the axis across', () => {
    const { json, data, file } = opened(demoPart('spindle'))
    const view = new DataView(file.buffer, file.byteOffset)
    expect(strFromU8(file.subarray(0, 4))).toBe('glTF')
    expect(view.getUint32(8, true)).toBe(file.length)
    expect(file.length % 4).toBe(0)
    expect(json.buffers[0]?.byteLength).toBe(data.length)
    expect(new Set(json.bufferViews.map((v) => v.target))).toEqual(new Set([34962, 34963]))
    const last = json.bufferViews.at(-1)
    expect((last?.byteOffset ?? 0) + (last?.byteLength ?? 0)).toBe(data.length)
    expect(json.nodes[0]?.scale).toEqual([1e-3, 1e-3, 1e-3])
    // A quarter turn about Y brings Z to X.
    expect(json.nodes[0]?.rotation).toEqual([0, Math.SQRT1_2, 0, Math.SQRT1_2])
    expect(json.accessors[0]?.min?.[2]).toBeCloseTo(0, 6)
    expect(json.accessors[0]?.max?.[2]).toBeCloseTo(171, 4)
  })

  test('has a node, a mesh and a material for each body', () => {
    const { json } = opened(demoPart('float'))
    expect(json.nodes.map((n) => n.name)).toEqual(['Float', 'shell', 'rod'])
    expect(json.nodes[0]?.children).toEqual([1, 2])
    expect(json.meshes.map((m) => m.name)).toEqual(['shell', 'rod'])
    expect(json.materials.every((m) => m.pbrMetallicRoughness.metallicFactor === 1)).toBe(true)
    const glass = opened(demoPart('ink-flask')).json.materials[0]
    expect(glass).toMatchObject({ alphaMode: 'BLEND', doubleSided: true })
  })
})

describe('every exporter', () => {
  test('writes the demo parts, and says so where nothing is turned', () => {
    const empty = createPart({ name: 'Float' })
    for (const exporter of EXPORTERS) {
      // What is written elsewhere first is handed through.
      const given = {
        ...settings,
        ...(exporter.pages ? { pdf: new Uint8Array(1) } : {}),
      }
      expect(exporter.write(evaluate(demoPart('spindle')), given).ok).toBe(true)
      const none = exporter.write(evaluate(empty), settings)
      if (exporter.id === 'json') expect(none.ok).toBe(true)
      else expect(none).toMatchObject({ ok: false, problem: { code: 'export.nothing' } })
    }
    expect(new Set(EXPORTERS.map((e) => e.extension)).size).toBe(EXPORTERS.length)
  })
})
