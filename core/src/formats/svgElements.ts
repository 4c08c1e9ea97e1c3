import { XMLParser } from 'fast-xml-parser'

/** An element of an SVG file, with what it says of itself. Nothing of it is ever run or fetched. */
export interface SvgElement {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: readonly SvgElement[]
}

/** The outermost element of an SVG file; undefined for what is none. */
export function svgRoot(text: string): SvgElement | undefined {
  // A document type of its own could define words that grow without end; drawings need none.
  const plain = text.replace(/<!DOCTYPE[^[>]*>/i, '')
  if (/<!DOCTYPE|<!ENTITY/i.test(plain)) return undefined
  const parser = new XMLParser({
    ...{ ignoreAttributes: false, attributeNamePrefix: '', removeNSPrefix: true },
    ...{ preserveOrder: true, parseTagValue: false, parseAttributeValue: false },
    ...{ ignoreDeclaration: true, ignorePiTags: true },
  })
  try {
    return elementsOf(parser.parse(plain)).find((e) => e.name === 'svg')
  } catch {
    return undefined
  }
}

function elementsOf(list: unknown): readonly SvgElement[] {
  if (!Array.isArray(list)) return []
  return list.flatMap((node: Record<string, unknown>) => {
    const name = Object.keys(node).find((key) => key !== ':@' && key !== '#text')
    if (name === undefined) return []
    const attributes = (node[':@'] ?? {}) as Record<string, string>
    return [{ name, attributes, children: elementsOf(node[name]) }]
  })
}

/** What is not drawn where it stands. */
const NOT_DRAWN = new Set(['defs', 'clipPath', 'mask', 'symbol', 'marker', 'pattern', 'metadata'])

/** Whether an element shows nothing where it stands. */
export const isNotDrawn = ({ name, attributes }: SvgElement): boolean =>
  NOT_DRAWN.has(name) || styled(attributes, 'display') === 'none'

/** A property told by its attribute or in the style. */
export function styled(attributes: SvgElement['attributes'], property: string): string | undefined {
  const style = new RegExp(`(?:^|;)\\s*${property}\\s*:\\s*([^;]+)`).exec(attributes['style'] ?? '')
  return style?.[1]?.trim() ?? attributes[property]
}

/** A basic shape as the path it stands for (SVG 2, 10). */
export function shapePath({ name, attributes }: SvgElement): string | undefined {
  const n = (key: string): number => Number.parseFloat(attributes[key] ?? '0') || 0
  const points = (attributes['points'] ?? '').trim()
  switch (name) {
    case 'path':
      return attributes['d']
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`
    case 'polyline':
      return points === '' ? undefined : `M${points}`
    case 'polygon':
      return points === '' ? undefined : `M${points}Z`
    case 'rect': {
      const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')]
      return w > 0 && h > 0 ? `M${x} ${y}h${w}v${h}h${-w}Z` : undefined
    }
    case 'circle':
      return ringOf(n('cx'), n('cy'), n('r'), n('r'))
    case 'ellipse':
      return ringOf(n('cx'), n('cy'), n('rx'), n('ry'))
    default:
      return undefined
  }
}

const ringOf = (x: number, y: number, rx: number, ry: number): string | undefined =>
  rx > 0 && ry > 0
    ? `M${x - rx} ${y}A${rx} ${ry} 0 0 1 ${x + rx} ${y}A${rx} ${ry} 0 0 1 ${x - rx} ${y}Z`
    : undefined
