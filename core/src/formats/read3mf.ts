import { XMLParser } from 'fast-xml-parser'
import { strFromU8, unzipSync } from 'fflate'
import { fail, succeed, type Result } from '../result'
import type { ForeignMesh } from './foreignMesh'

/** Unpacked files larger than this are refused before they are unpacked, in bytes. */
const LARGEST_MODEL = 250_000_000
/** Components within components go no deeper. */
const DEEPEST = 8

/** Lengths of a model's units in mm. */
const UNITS: Readonly<Record<string, number>> = {
  ...{ micron: 1e-3, millimeter: 1, centimeter: 10, meter: 1000 },
  ...{ inch: 25.4, foot: 304.8 },
}

/** Four rows of three numbers: a place as a row, times the matrix. */
type Matrix = readonly number[]
const SAME: Matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0]

type Node = Readonly<Record<string, unknown>>

/** The meshes of a 3MF file (3MF Core Specification 1.3), one for each item of its build, in mm. */
export function read3mf(bytes: Uint8Array): Result<readonly ForeignMesh[]> {
  const unpacked = modelsIn(bytes)
  if (!unpacked.ok) return unpacked
  const models = new Map<string, Node>()
  for (const [path, text] of unpacked.value) {
    const model = parsed(text)
    if (!model) return notSound
    models.set(path, model)
  }
  const main = [...models].find(([, m]) => itemsOf(m).length > 0)
  if (!main) return notSound
  try {
    return succeed(new Reader(models).meshes(...main))
  } catch (error) {
    if (error instanceof RangeError) return notSound
    throw error
  }
}

const notSound: Result<never> = fail(
  'threeMf.broken',
  'This 3MF file cannot be read: its model is missing or broken.',
  'Write it again from its source.',
)

/** The texts of all models in the package, by path. */
function modelsIn(bytes: Uint8Array): Result<ReadonlyMap<string, string>> {
  let total = 0
  try {
    const files = unzipSync(bytes, {
      filter({ name, originalSize }) {
        if (!/\.model$/i.test(name)) return false
        total += originalSize
        return total <= LARGEST_MODEL
      },
    })
    if (total > LARGEST_MODEL) {
      return fail('mesh.large', 'This file is too large for a mesh to go by.', 'Write it coarser.')
    }
    return succeed(
      new Map(Object.entries(files).map(([name, data]) => [`/${name}`, strFromU8(data)])),
    )
  } catch {
    return fail('threeMf.zip', 'This 3MF file cannot be unpacked.', 'Copy it again.')
  }
}

const LISTS = new Set([
  'object',
  'item',
  'component',
  'vertex',
  'triangle',
  'base',
  'basematerials',
])

function parsed(text: string): Node | undefined {
  const parser = new XMLParser({
    ...{ ignoreAttributes: false, attributeNamePrefix: '', removeNSPrefix: true },
    ...{ parseTagValue: false, processEntities: true, ignoreDeclaration: true },
    isArray: (name) => LISTS.has(name),
  })
  try {
    const { model } = parser.parse(text) as Node
    return isNode(model) ? model : undefined
  } catch {
    return undefined
  }
}

const isNode = (value: unknown): value is Node => typeof value === 'object' && value !== null
const under = (node: Node | undefined, ...path: readonly string[]): Node | undefined =>
  path.reduce<Node | undefined>((here, name) => {
    const next = here?.[name]
    return isNode(next) ? next : undefined
  }, node)
const listOf = (node: Node | undefined, name: string): readonly Node[] => {
  const list = node?.[name]
  return Array.isArray(list) ? list.filter(isNode) : []
}
const textOf = (node: Node | undefined, name: string): string => {
  const value = node?.[name]
  return typeof value === 'string' ? value : ''
}
const itemsOf = (model: Node): readonly Node[] => listOf(under(model, 'build'), 'item')

/** A number of the file. @throws RangeError when it is none */
function numberOf(node: Node, name: string): number {
  const value = Number(textOf(node, name))
  if (textOf(node, name) === '' || !Number.isFinite(value)) throw new RangeError(name)
  return value
}

class Reader {
  constructor(private readonly models: ReadonlyMap<string, Node>) {}

  meshes(path: string, model: Node): readonly ForeignMesh[] {
    return itemsOf(model).map((item, i) => {
      const own = this.pathOf(item, path)
      const id = textOf(item, 'objectid')
      const object = this.object(own, id)
      const places: number[] = []
      const triangles: number[] = []
      this.collect(own, id, matrixOf(item), { places, triangles }, 0)
      const name = textOf(object, 'name').slice(0, 80)
      return {
        name: name === '' ? `mesh ${i + 1}` : name,
        colour: this.colourOf(own, object),
        positions: Float32Array.from(places),
        indices: Uint32Array.from(triangles),
      }
    })
  }

  private pathOf(node: Node, here: string): string {
    const other = textOf(node, 'path')
    return other === '' ? here : other
  }

  private object(path: string, id: string): Node {
    const model = this.models.get(path)
    const found = listOf(under(model, 'resources'), 'object').find((o) => textOf(o, 'id') === id)
    if (!found) throw new RangeError(`object ${id}`)
    return found
  }

  /** All triangles of an object and its components, moved and in mm. */
  private collect(
    path: string,
    id: string,
    matrix: Matrix,
    into: { readonly places: number[]; readonly triangles: number[] },
    depth: number,
  ): void {
    if (depth > DEEPEST) throw new RangeError('components go in a circle')
    const object = this.object(path, id)
    const scale = UNITS[textOf(this.models.get(path), 'unit') || 'millimeter'] ?? 1
    const first = into.places.length / 3
    const mesh = under(object, 'mesh')
    const vertices = listOf(under(mesh, 'vertices'), 'vertex')
    for (const v of vertices) {
      const at = moved(matrix, [numberOf(v, 'x'), numberOf(v, 'y'), numberOf(v, 'z')])
      into.places.push(...at.map((x) => scale * x))
    }
    for (const t of listOf(under(mesh, 'triangles'), 'triangle')) {
      const corners = [numberOf(t, 'v1'), numberOf(t, 'v2'), numberOf(t, 'v3')]
      if (corners.some((c) => !Number.isInteger(c) || c < 0 || c >= vertices.length)) {
        throw new RangeError('triangle')
      }
      into.triangles.push(...corners.map((c) => first + c))
    }
    for (const c of listOf(under(object, 'components'), 'component')) {
      const within = times(matrixOf(c), matrix)
      this.collect(this.pathOf(c, path), textOf(c, 'objectid'), within, into, depth + 1)
    }
  }

  /** The object's own colour, where its base material has one. */
  private colourOf(path: string, object: Node): string {
    const groups = listOf(under(this.models.get(path), 'resources'), 'basematerials')
    const group = groups.find((g) => textOf(g, 'id') === textOf(object, 'pid'))
    const base = listOf(group, 'base')[Number(textOf(object, 'pindex') || '0')]
    return /^#[0-9a-f]{6}/i.exec(textOf(base, 'displaycolor'))?.[0].toLowerCase() ?? ''
  }
}

/** Where an item or component stands. @throws RangeError when that is no matrix */
function matrixOf(node: Node): Matrix {
  const text = textOf(node, 'transform').trim()
  if (text === '') return SAME
  const numbers = text.split(/\s+/).map(Number)
  if (numbers.length !== 12 || !numbers.every(Number.isFinite)) throw new RangeError('transform')
  return numbers
}

const moved = (m: Matrix, p: readonly number[]): number[] =>
  [0, 1, 2].map(
    (k) =>
      (p[0] ?? 0) * (m[k] ?? 0) +
      (p[1] ?? 0) * (m[3 + k] ?? 0) +
      (p[2] ?? 0) * (m[6 + k] ?? 0) +
      (m[9 + k] ?? 0),
  )

/** First one matrix, then another. */
function times(first: Matrix, then: Matrix): Matrix {
  const turned = [0, 3, 6].flatMap((r) => {
    const row = moved(then, first.slice(r, r + 3))
    return row.map((x, k) => x - (then[9 + k] ?? 0))
  })
  return [...turned, ...moved(then, first.slice(9, 12))]
}
