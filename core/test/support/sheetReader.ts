import { XMLParser } from 'fast-xml-parser'
import svgpath from 'svgpath'

/**
 * Reads a sheet as one reads a drawing: from its SVG alone. Nothing of what lays sheets out or writes them is used
 * here, so that it can judge both. Places are in mm, y downwards.
 */

interface Place {
  readonly x: number
  readonly y: number
}

interface Line {
  readonly a: Place
  readonly b: Place
}

interface Box {
  readonly x0: number
  readonly y0: number
  readonly x1: number
  readonly y1: number
}

export interface ReadText extends Box {
  readonly words: string
  readonly upright: boolean
}

export interface ReadGroup {
  readonly role: string
  readonly id: string
  readonly texts: readonly ReadText[]
  /** Lines by their kind: wide, narrow, centre. */
  readonly lines: ReadonlyMap<string, readonly Line[]>
  /** The points of arrow heads: where each filled outline begins. */
  readonly heads: readonly Place[]
}

type Node = Readonly<Record<string, unknown>> & { readonly ':@'?: Readonly<Record<string, string>> }

const parser = new XMLParser({
  ...{ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '' },
  ...{ trimValues: false, parseTagValue: false, parseAttributeValue: false },
})

/** The groups of a sheet. */
export function readSheet(svg: string): ReadGroup[] {
  const root = (parser.parse(svg) as Node[]).flatMap((n) => (n['svg'] as Node[] | undefined) ?? [])
  return root.flatMap((node) => {
    const inner = node['g'] as Node[] | undefined
    const named = node[':@'] ?? {}
    if (!inner || named['data-role'] === undefined) return []
    return [readGroup(inner, named['data-role'], named['data-id'] ?? '')]
  })
}

function readGroup(nodes: readonly Node[], role: string, id: string): ReadGroup {
  const texts: ReadText[] = []
  const lines = new Map<string, Line[]>()
  const heads: Place[] = []
  for (const node of nodes) {
    const inner = node['g'] as Node[] | undefined
    if (inner) {
      const text = textOf(inner, node[':@']?.['transform'] ?? '')
      if (text) texts.push(text)
    }
    const d = node['path'] === undefined ? undefined : node[':@']?.['d']
    if (d === undefined) continue
    const kind = node[':@']?.['class']
    if (kind === undefined) {
      const [, x = '0', y = '0'] = /^M\s*(-?[\d.]+)[ ,]+(-?[\d.]+)/.exec(d) ?? []
      heads.push({ x: Number(x), y: Number(y) })
    } else lines.set(kind, [...(lines.get(kind) ?? []), ...chordsOf(d)])
  }
  return { role, id, texts, lines, heads }
}

function textOf(nodes: readonly Node[], transform: string): ReadText | undefined {
  const found = nodes.find((n) => n['text'] !== undefined)
  if (!found) return undefined
  const size = Number(found[':@']?.['font-size'])
  const words = (found['text'] as Node[])
    .flatMap((n) => (n['tspan'] as Node[] | undefined) ?? [])
    .map((n) => String(n['#text'] ?? ''))
    .join('')
  const [, x = '0', y = '0'] = /translate\((-?[\d.]+) (-?[\d.]+)\)/.exec(transform) ?? []
  const [left, base] = [Number(x), Number(y)]
  // Characters of the typeface are 0.6 em wide, capitals 0.698 em high.
  const [width, height] = [[...words].length * 0.6 * size, 0.698 * size]
  const upright = transform.includes('rotate')
  return upright
    ? { words, upright, x0: left - height, x1: left, y0: base - width, y1: base }
    : { words, upright, x0: left, x1: left + width, y0: base - height, y1: base }
}

/** A path as straight lines close to it. */
function chordsOf(d: string): Line[] {
  const lines: Line[] = []
  let start: Place = { x: 0, y: 0 }
  svgpath(d)
    .abs()
    .unarc()
    .iterate((segment, _, x, y) => {
      const [command, ...n] = segment as [string, ...number[]]
      const from = { x, y }
      if (command === 'M') start = { x: n[0] ?? 0, y: n[1] ?? 0 }
      else if (command === 'Z') lines.push({ a: from, b: start })
      else if (command === 'C') {
        const at = (t: number): Place => {
          const [p, q, r, s] = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3]
          return {
            x: p * x + q * (n[0] ?? 0) + r * (n[2] ?? 0) + s * (n[4] ?? 0),
            y: p * y + q * (n[1] ?? 0) + r * (n[3] ?? 0) + s * (n[5] ?? 0),
          }
        }
        for (let i = 0; i < 16; i++) lines.push({ a: at(i / 16), b: at((i + 1) / 16) })
      } else lines.push({ a: from, b: { x: n.at(-2) ?? x, y: n.at(-1) ?? y } })
    })
  return lines
}

/** What covers what it must not: labels over labels, outlines, and dimension lines of others. */
export function overlapsOn(groups: readonly ReadGroup[]): string[] {
  const labelled = groups.filter((g) => g.role === 'size' || g.role === 'note')
  const found: string[] = []
  labelled.forEach((group, i) => {
    for (const text of group.texts) {
      for (const other of labelled.slice(i + 1)) {
        for (const its of other.texts) {
          if (meet(text, its)) found.push(`“${text.words}” and “${its.words}”`)
        }
      }
      for (const other of groups) {
        if (other === group || other.role === 'frame') continue
        for (const [kind, lines] of other.lines) {
          // Hatching and threads are narrow lines of a view; sizes keep off outlines.
          if (other.role === 'view' && kind !== 'wide') continue
          const line = lines.find((l) => within(l, text))
          if (line)
            found.push(`“${text.words}” and a line of ${other.id === '' ? other.role : other.id}`)
        }
      }
    }
  })
  return found
}

const meet = (a: Box, b: Box): boolean => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1

/** Whether a line has more than its ends in a box, looked at place by place. */
function within({ a, b }: Line, box: Box): boolean {
  if (Math.max(a.x, b.x) < box.x0 || Math.min(a.x, b.x) > box.x1) return false
  if (Math.max(a.y, b.y) < box.y0 || Math.min(a.y, b.y) > box.y1) return false
  const steps = Math.max(2, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / 0.1))
  for (let i = 0; i <= steps; i++) {
    const x = a.x + ((b.x - a.x) * i) / steps
    const y = a.y + ((b.y - a.y) * i) / steps
    if (x > box.x0 + 1e-6 && x < box.x1 - 1e-6 && y > box.y0 + 1e-6 && y < box.y1 - 1e-6)
      return true
  }
  return false
}

/** A stepped shaft by the drawing of it: its lands from left to right, in the unit of its figures. */
export interface ReadLand {
  readonly diameter: number
  readonly length: number
}

/**
 * Reads a stepped shaft off its sheet: figures say how large it is, the outline only which of them belongs where.
 * @throws where a size is missing or told twice
 */
export function shaftOn(groups: readonly ReadGroup[]): ReadLand[] {
  const view = groups.find((g) => g.role === 'view')
  const outline = view?.lines.get('wide') ?? []
  const level = outline.filter(
    ({ a, b }) => Math.abs(a.y - b.y) < 1e-6 && Math.abs(a.x - b.x) > 1e-6,
  )
  const axis = axisOf(view)
  const top = level.filter(({ a }) => a.y < axis - 1e-6)
  const lands = top
    .map(({ a, b }) => ({ from: Math.min(a.x, b.x), to: Math.max(a.x, b.x), radius: axis - a.y }))
    .sort((a, b) => a.from - b.from)
  const sizes = groups.filter((g) => g.role === 'size')
  const lengths = sizes.flatMap(({ texts: [text], heads }) => {
    if (!text || text.upright || /[^\d.]/.test(text.words) || heads.length !== 2) return []
    const xs = heads.map((h) => h.x).sort((a, b) => a - b)
    return [{ from: xs[0] ?? 0, to: xs[1] ?? 0, value: Number(text.words) }]
  })
  const diameters = sizes.flatMap(({ texts: [text], heads, lines }) => {
    if (!text?.words.startsWith('⌀')) return []
    const [head] = heads
    const xs = (lines.get('narrow') ?? []).flatMap(({ a, b }) => [a.x, b.x])
    const reach = { from: Math.min(...xs), to: Math.max(...xs) }
    return head
      ? [{ radius: Math.abs(head.y - axis), value: Number(text.words.slice(1)), reach }]
      : []
  })
  return lands.map((land) => {
    const own = lengths.filter(
      (l) => Math.abs(l.from - land.from) < 1e-3 && Math.abs(l.to - land.to) < 1e-3,
    )
    const round = diameters.filter(
      (d) =>
        Math.abs(d.radius - land.radius) < 1e-3 &&
        d.reach.from <= land.to + 2 &&
        d.reach.to >= land.from - 2,
    )
    const values = new Set(round.map((d) => d.value))
    if (own.length !== 1) throw new Error(`a land has ${own.length} lengths`)
    if (values.size !== 1) throw new Error(`a land has ${values.size} diameters`)
    return { diameter: [...values][0] ?? 0, length: own[0]?.value ?? 0 }
  })
}

/** The centre line of a view. */
function axisOf(view: ReadGroup | undefined): number {
  const [centre] = view?.lines.get('centre') ?? []
  if (!centre) throw new Error('the view has no centre line')
  return centre.a.y
}
