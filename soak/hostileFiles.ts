import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { createPart } from '@lathica/core/part'
import { toDocument } from '@lathica/core/formats'
import { strToU8, zipSync } from 'fflate'
import type { Random } from '../fuzz/random'

/** Something that is sent to the server: a document to be stored, or a file to be read. */
export interface Hostile {
  readonly what: string
  readonly name?: string
  readonly bytes: Uint8Array
}

const FILES = join(import.meta.dirname, '..', 'kernel', 'test', 'files')
const MESHES = join(import.meta.dirname, '..', 'core', 'test', 'files')
const found = (folder: string): (readonly [string, Uint8Array])[] =>
  readdirSync(folder).map((name) => [name, readFileSync(join(folder, name))] as const)

type Maker = (random: Random) => Hostile

const part = (change: object): Uint8Array =>
  strToU8(
    JSON.stringify({ document: { ...toDocument(createPart({ name: 'Hostile' })), ...change } }),
  )

const sketch = (points: number, more: object): object => ({
  ...{ id: 's1', name: 'A', plane: 'half', nextId: 9, constraints: [], sizes: [] },
  points: Array.from({ length: points }, (_, i) => ({ id: `p${i}`, x: i % 97, y: (i * 7) % 89 })),
  entities: Array.from({ length: points - 1 }, (_, i) => ({
    ...{ id: `e${i}`, kind: 'line', role: 'outline', from: `p${i}`, to: `p${i + 1}` },
  })),
  ...more,
})

const MAKERS: Readonly<Record<string, Maker>> = {
  'a part of 20,000 constraints': (random) => {
    const count = 5000
    // Some contradict one another, and most say again what is said.
    const constraints = Array.from({ length: 20_000 }, (_, i) => ({
      ...{
        id: `c${i}`,
        kind: random.pick(['axial', 'radial']),
        line: `e${random.below(count - 1)}`,
      },
    }))
    return { what: '', bytes: part({ sketches: [sketch(count, { constraints })] }) }
  },
  'a chain of 20,000 values': () => ({
    what: '',
    bytes: part({
      values: Array.from({ length: 20_000 }, (_, i) => ({
        ...{ name: `v${i}`, measure: 'number', formula: i === 0 ? '1' : `v${i - 1} + 1` },
      })),
    }),
  }),
  'a deep nesting': (random) => {
    const deep = 1000 + random.below(100_000)
    return { what: '', bytes: strToU8(`{"document":${'['.repeat(deep)}${']'.repeat(deep)}}`) }
  },
  'a large text that is no part': (random) => ({
    what: '',
    bytes: strToU8(`{"document":"${'x'.repeat(random.below(7_900_000))}"}`),
  }),
  'too large a body': () => ({ what: '', bytes: new Uint8Array(9_000_000) }),
  'bytes that are nothing': (random) => ({
    what: '',
    bytes: Uint8Array.from({ length: random.below(5000) }, () => random.below(256)),
  }),
  'a solid with bytes changed': (random) => {
    const [name, bytes] = random.pick(found(FILES))
    const changed = Uint8Array.from(bytes)
    for (let i = 0; i <= random.below(20); i++) {
      changed[random.below(changed.length)] = 32 + random.below(95)
    }
    return { what: '', name, bytes: changed }
  },
  'a solid that stops': (random) => {
    const [name, bytes] = random.pick(found(FILES))
    return { what: '', name, bytes: bytes.slice(0, random.below(bytes.length)) }
  },
  'triangles that are fewer than told': (random) => {
    const bytes = new Uint8Array(84 + 50 * random.below(100))
    new DataView(bytes.buffer).setUint32(80, random.pick([4_294_967_295, 1_000_000, 101]), true)
    return { what: '', name: 'a.stl', bytes }
  },
  'a mesh with bytes changed': (random) => {
    const [name, bytes] = random.pick(found(MESHES))
    const changed = Uint8Array.from(bytes)
    for (let i = 0; i <= random.below(20); i++)
      changed[random.below(changed.length)] = random.below(256)
    return { what: '', name, bytes: changed }
  },
  'an archive that is nothing when packed': () => ({
    what: '',
    name: 'a.3mf',
    bytes: zipSync({ '3D/3dmodel.model': new Uint8Array(200_000_000) }, { level: 1 }),
  }),
  'components within components': () => {
    const level = (i: number): string =>
      `<object id="${i + 2}" type="model"><components>${`<component objectid="${i + 1}"/>`.repeat(10)}</components></object>`
    const mesh =
      '<object id="1" type="model"><mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="1" y="0" z="0"/>' +
      '<vertex x="0" y="1" z="0"/><vertex x="0" y="0" z="1"/></vertices><triangles><triangle v1="0" v2="2" v3="1"/>' +
      '<triangle v1="0" v2="1" v3="3"/><triangle v1="0" v2="3" v3="2"/><triangle v1="1" v2="2" v3="3"/></triangles></mesh></object>'
    const levels = Array.from({ length: 30 }, (_, i) => level(i)).join('')
    const model = `<?xml version="1.0"?><model unit="millimeter" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>${mesh}${levels}</resources><build><item objectid="31"/></build></model>`
    return { what: '', name: 'a.3mf', bytes: zipSync({ '3D/3dmodel.model': strToU8(model) }) }
  },
  'a text that goes on and on': (random) => ({
    what: '',
    name: random.pick(['a.step', 'a.stl', 'a.3mf']),
    bytes: strToU8(random.pick(['solid a\n', '#1=(', '<a>', ';']).repeat(1_000_000)),
  }),
}

/** One hostile thing after another, each kind in turn. */
export function hostileAt(turn: number, random: Random): Hostile {
  const all = Object.entries(MAKERS)
  const [what, make] = all[turn % all.length] ?? all[0] ?? []
  if (what === undefined || !make) throw new Error('there are no makers')
  return { ...make(random), what }
}
