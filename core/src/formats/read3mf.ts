import { XMLParser } from 'fast-xml-parser'
import { unzipSync } from 'fflate'
import { fail, succeed, type Result } from '../result'
import { MOST_TRIANGLES } from '../solid'
import type { ForeignMesh } from './foreignMesh'
import { tooManyTriangles } from './tooMany'

/** Unpacked files larger than this are refused before they are unpacked, in bytes: all triangles there may be take some 30 MB. */
const LARGEST_MODEL = 80_000_000
/** Models of more marks than this are refused before they are read. */
const MOST_TAGS = 3 * MOST_TRIANGLES
/** Components within components go no deeper. */
const DEEPEST = 8
/** A file's components, each as often as it is used, are no more. */
const MOST_COMPONENTS = 10_000

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
  const { texts, start } = unpacked.value
  const models = new Map<string, Node>()
  let tags = 0
  for (const [path, text] of texts) {
    if (!/^\s*</.test(text)) return notSound
    for (let at = text.indexOf('<'); at >= 0; at = text.indexOf('<', at + 1)) tags++
    if (tags > MOST_TAGS) return tooManyTriangles(MOST_TRIANGLES + 1)
    const model = parsed(text)
    if (!model) return notSound
    const refused = refusedBy(model, namespacesIn(text))
    if (refused) return refused
    models.set(path, model)
  }
  // The package says which model it begins with; one that does not is read all the same.
  const named = start === undefined ? undefined : models.get(start)
  const main =
    start !== undefined && named
      ? ([start, named] as const)
      : [...models].find(([, m]) => itemsOf(m).length > 0)
  if (!main) return notSound
  const [path, model] = main
  try {
    return succeed(new Reader(models).meshes(path, model))
  } catch (error) {
    if (error instanceof TooLarge) return tooManyTriangles(MOST_TRIANGLES + 1)
    if (error instanceof RangeError) return notSound
    throw error
  }
}

/** Thrown while components are put together, before there are more of them than there is room for. */
class TooLarge extends Error {}

/** Namespaces of what a model may require: materials, and objects that lie in other files. */
const KNOWN_EXTENSIONS: ReadonlySet<string> = new Set([
  'http://schemas.microsoft.com/3dmanufacturing/core/2015/02',
  'http://schemas.microsoft.com/3dmanufacturing/material/2015/02',
  'http://schemas.microsoft.com/3dmanufacturing/production/2015/06',
])

/** The namespaces that the root of a document gives short names to, which the parser does not keep. */
function namespacesIn(text: string): ReadonlyMap<string, string> {
  const root = /<(?:\w+:)?model\b[^>]*>/.exec(text)?.[0] ?? ''
  const found = root.matchAll(/\bxmlns:(\w+)\s*=\s*["']([^"']*)["']/g)
  return new Map([...found].map(([, prefix = '', address = '']) => [prefix, address]))
}

/** Why a model cannot be read as it is meant: it requires what is not known here, or is in an unknown unit. */
function refusedBy(
  model: Node,
  namespaces: ReadonlyMap<string, string>,
): Result<never> | undefined {
  const required = textOf(model, 'requiredextensions').split(/\s+/).filter(Boolean)
  const unknown = required.find((prefix) => !KNOWN_EXTENSIONS.has(namespaces.get(prefix) ?? ''))
  if (unknown !== undefined) {
    // An address such as …/beamlattice/2017/02.
    const what = namespaces.get(unknown)?.split('/').at(-3) ?? unknown
    return fail(
      'threeMf.extension',
      `This file requires an extension that is not read here: ${what}.`,
      'Write it as a plain mesh.',
    )
  }
  const unit = textOf(model, 'unit')
  if (unit === '' || unit in UNITS) return undefined
  return fail(
    'threeMf.unit',
    `This file is in “${unit.slice(0, 40)}”, which is no unit of a 3MF file.`,
    `Write it in one of ${Object.keys(UNITS).join(', ')}.`,
  )
}

const notSound: Result<never> = fail(
  'threeMf.broken',
  'This 3MF file cannot be read: its model is missing or broken.',
  'Write it again from its source.',
)

interface Package {
  /** The texts of all models, by path. */
  readonly texts: ReadonlyMap<string, string>
  /** The path of the model the package begins with, where it says so. */
  readonly start: string | undefined
}

const RELATIONS = '_rels/.rels'
const IS_MODEL = /Type\s*=\s*["'][^"']*\/3dmodel["']/
const TARGET = /Target\s*=\s*["']\/?([^"']+)["']/

function modelsIn(bytes: Uint8Array): Result<Package> {
  let total = 0
  try {
    const files = unzipSync(bytes, {
      filter({ name, originalSize }) {
        if (!/\.model$/i.test(name) && name !== RELATIONS) return false
        total += originalSize
        return total <= LARGEST_MODEL
      },
    })
    if (total > LARGEST_MODEL) {
      return fail('mesh.large', 'This file is too large for a mesh to go by.', 'Write it coarser.')
    }
    const relations = files[RELATIONS] ? textIn(files[RELATIONS]) : ''
    const ours = relations.match(/<Relationship\b[^>]*>/g)?.find((r) => IS_MODEL.test(r))
    const target = ours && TARGET.exec(ours)?.[1]
    const texts = Object.entries(files).flatMap(([name, data]): [string, string][] =>
      name === RELATIONS ? [] : [[`/${name}`, textIn(data)]],
    )
    return succeed({ texts: new Map(texts), start: target && `/${target}` })
  } catch {
    return fail('threeMf.zip', 'This 3MF file cannot be unpacked.', 'Copy it again.')
  }
}

/** A text in the encoding that its first bytes tell: UTF-16 of either order, or UTF-8. */
function textIn(data: Uint8Array): string {
  const [a, b] = data
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(data)
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(data)
  return new TextDecoder().decode(data)
}

const LISTS = new Set([
  'object',
  'item',
  'component',
  'vertex',
  'triangle',
  'base',
  'basematerials',
  'color',
  'colorgroup',
])

function parsed(text: string): Node | undefined {
  // The standard allows no definitions of a document's own, which could be made to grow without end.
  if (/<!DOCTYPE/i.test(text.slice(0, 4096))) return undefined
  const parser = new XMLParser({
    ...{ ignoreAttributes: false, attributeNamePrefix: '', removeNSPrefix: true },
    ...{ parseTagValue: false, processEntities: true, ignoreDeclaration: true },
    isArray: (name, _path, _isLeaf, isAttribute) => !isAttribute && LISTS.has(name),
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
  /** Components gone through, and triangles and vertices put together, of all items. */
  private collected = 0
  private put = 0

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
    if (++this.collected > MOST_COMPONENTS || this.put > 3 * MOST_TRIANGLES) throw new TooLarge()
    const object = this.object(path, id)
    const scale = UNITS[textOf(this.models.get(path), 'unit') || 'millimeter'] ?? 1
    const first = into.places.length / 3
    const mesh = under(object, 'mesh')
    const vertices = listOf(under(mesh, 'vertices'), 'vertex')
    const triangles = listOf(under(mesh, 'triangles'), 'triangle')
    this.put += vertices.length + triangles.length
    for (const v of vertices) {
      const at = moved(matrix, [numberOf(v, 'x'), numberOf(v, 'y'), numberOf(v, 'z')])
      into.places.push(...at.map((x) => scale * x))
    }
    for (const t of triangles) {
      const corners = [numberOf(t, 'v1'), numberOf(t, 'v2'), numberOf(t, 'v3')]
      if (corners.some((c) => !Number.isInteger(c) || c < 0 || c >= vertices.length)) {
        throw new RangeError('triangle')
      }
      const [u = 0, v = 0, w = 0] = corners.map((c) => first + c)
      // What is mirrored is turned inside out, and back.
      if (mirrors(matrix)) into.triangles.push(u, w, v)
      else into.triangles.push(u, v, w)
    }
    for (const c of listOf(under(object, 'components'), 'component')) {
      const within = times(matrixOf(c), matrix)
      this.collect(this.pathOf(c, path), textOf(c, 'objectid'), within, into, depth + 1)
    }
  }

  /** The colour of an object: its own, or that of most of its triangles, or that of its first component with one. */
  private colourOf(path: string, object: Node, depth = 0): string {
    const own = this.toneOf(path, textOf(object, 'pid'), textOf(object, 'pindex'))
    if (own !== '') return own
    const counts = new Map<string, number>()
    for (const t of listOf(under(object, 'mesh', 'triangles'), 'triangle')) {
      const tone = this.toneOf(path, textOf(t, 'pid'), textOf(t, 'p1'))
      if (tone !== '') counts.set(tone, (counts.get(tone) ?? 0) + 1)
    }
    const [most] = [...counts].sort((a, b) => b[1] - a[1])
    if (most) return most[0]
    if (depth > DEEPEST) return ''
    for (const c of listOf(under(object, 'components'), 'component')) {
      const at = this.pathOf(c, path)
      const tone = this.colourOf(at, this.object(at, textOf(c, 'objectid')), depth + 1)
      if (tone !== '') return tone
    }
    return ''
  }

  /** A colour of a base material (Core Specification, 5.1) or of a colour group (Materials Extension, 2). */
  private toneOf(path: string, group: string, index: string): string {
    if (group === '') return ''
    const known = `${path} ${group} ${index}`
    const tone = this.tones.get(known) ?? this.toneIn(path, group, Number(index || '0'))
    this.tones.set(known, tone)
    return tone
  }

  private readonly tones = new Map<string, string>()

  private toneIn(path: string, id: string, index: number): string {
    const resources = under(this.models.get(path), 'resources')
    const isIt = (g: Node): boolean => textOf(g, 'id') === id
    const bases = listOf(resources, 'basematerials').find(isIt)
    const colours = listOf(resources, 'colorgroup').find(isIt)
    const told = bases
      ? textOf(listOf(bases, 'base')[index], 'displaycolor')
      : textOf(listOf(colours, 'color')[index], 'color')
    return /^#[0-9a-f]{6}/i.exec(told)?.[0].toLowerCase() ?? ''
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

/** Whether a matrix makes left of right: its determinant is negative. */
function mirrors([a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0, i = 0]: Matrix): boolean {
  return a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g) < 0
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
