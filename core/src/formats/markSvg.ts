import svgpath from 'svgpath'
import { LONGEST_MARK, sumOf, type BlockMark, type MarkPath } from '../part'
import { fail, succeed, type Result } from '../result'
import { isNotDrawn, shapePath, styled, svgRoot, type SvgElement } from './svgElements'

/** Larger files are pictures, not marks. */
export const LARGEST_MARK_FILE = 500_000
/** Of the side of a mark, how many steps its places are told in: finer than print. */
const STEPS = 10_000

/** A mark that was read, and what of its file was not taken. */
export interface ReadMark {
  readonly mark: BlockMark
  readonly told: readonly string[]
}

/**
 * Reads a mark for a title block from an SVG file (SVG 2: basic shapes and paths in groups with transforms). Only outlines
 * are kept, as figures: scripts, references, pictures and styles of the file are never run, fetched or kept.
 */
export function readMark(text: string): Result<ReadMark> {
  if (text.length > LARGEST_MARK_FILE) {
    return fail('mark.large', 'This drawing is too large for a mark.', 'Simplify it first.')
  }
  const root = svgRoot(text)
  if (!root) return fail('mark.kind', 'This is no SVG drawing.', 'Choose an SVG file.')
  const found: Drawn[] = []
  const left = new Map<string, number>()
  gather(root, { transform: '', fill: 'black', stroke: 'none' }, found, left)
  const box = boundsOf(found)
  if (!box) {
    return fail(
      'mark.empty',
      'There is no shape in this drawing.',
      'Turn its text and pictures into paths first.',
    )
  }
  const width = box.x1 - box.x0
  const height = box.y1 - box.y0
  const by = STEPS / Math.max(width, height)
  const at = (v: number, i: number): number =>
    Math.round((v - (i % 2 === 0 ? box.x0 : box.y0)) * by)
  const paths = found.map(({ path, tone }): MarkPath => ({
    tone,
    d: path.map(({ letter, n }) => `${letter}${n.map(at).join(' ')}`).join(''),
  }))
  if (sumOf(paths.map((p) => p.d.length)) > LONGEST_MARK) {
    return fail('block.mark', 'This mark is too finely drawn.', 'Simplify its paths first.')
  }
  const told = [...left].map(([what, n]) => `${n} × ${what}`)
  return succeed({
    mark: {
      width: Math.max(1, Math.round(width * by)),
      height: Math.max(1, Math.round(height * by)),
      paths,
    },
    told:
      told.length === 0 ? [] : [`Left out: ${told.join(', ')}. Turn text into paths to keep it.`],
  })
}

/** A move, a line, a cubic or a closing, absolute. */
interface Segment {
  readonly letter: string
  readonly n: readonly number[]
}

interface Drawn {
  readonly path: readonly Segment[]
  readonly tone: MarkPath['tone']
}

/** What elements have from those round them. */
interface Inherited {
  readonly transform: string
  readonly fill: string
  readonly stroke: string
}

/** What would be seen, and is not taken. */
const NOT_TAKEN = new Set([
  'text',
  'image',
  'use',
  'foreignObject',
  'script',
  'style',
  'a',
  'switch',
])

function gather(
  element: SvgElement,
  outer: Inherited,
  into: Drawn[],
  left: Map<string, number>,
): void {
  const { name, attributes, children } = element
  if (NOT_TAKEN.has(name)) {
    left.set(name, (left.get(name) ?? 0) + 1)
    return
  }
  if (isNotDrawn(element) || styled(attributes, 'visibility') === 'hidden') return
  const own: Inherited = {
    transform: `${outer.transform} ${attributes['transform'] ?? ''}`.trim(),
    fill: styled(attributes, 'fill') ?? outer.fill,
    stroke: styled(attributes, 'stroke') ?? outer.stroke,
  }
  const d = shapePath(element)
  const tone = toneOf(own, name)
  if (d !== undefined && tone) {
    const path = plainPath(d, own.transform)
    if (path) into.push({ path, tone })
  }
  for (const child of children) gather(child, own, into, left)
}

/** White is paper; of what is not filled the line is drawn. */
function toneOf({ fill, stroke }: Inherited, name: string): MarkPath['tone'] | undefined {
  const isFilled = fill !== 'none' && fill !== 'transparent' && name !== 'line'
  if (isFilled) return /^(white|#fff(fff)?|rgb\(255, ?255, ?255\))$/i.test(fill) ? 'paper' : 'ink'
  return stroke !== 'none' && stroke !== 'transparent' ? 'line' : undefined
}

/** A path as absolute moves, lines, cubics and closings; undefined where it is none, or goes nowhere. */
function plainPath(d: string, transform: string): readonly Segment[] | undefined {
  const path: Segment[] = []
  svgpath(d)
    .transform(transform)
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, _, x, y) => {
      const [letter, ...n] = segment as [string, ...number[]]
      const [a = 0, b = 0, c = 0, e = 0] = n
      if (letter === 'H') path.push({ letter: 'L', n: [a, y] })
      else if (letter === 'V') path.push({ letter: 'L', n: [x, a] })
      else if (letter === 'Q') {
        // The cubic that a parabola is.
        const near = (end: number, handle: number): number => end + (2 / 3) * (handle - end)
        path.push({ letter: 'C', n: [near(x, a), near(y, b), near(c, a), near(e, b), c, e] })
      } else path.push({ letter: letter.toUpperCase(), n })
    })
  const isSound = path.every(({ letter, n }) => 'MLCZ'.includes(letter) && n.every(Number.isFinite))
  return isSound && path.length > 1 && path[0]?.letter === 'M' ? path : undefined
}

/** What all of it takes up, by its ends and handles; undefined where that is nothing. */
function boundsOf(
  all: readonly Drawn[],
):
  | { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number }
  | undefined {
  const [xs, ys]: [number[], number[]] = [[], []]
  for (const { path } of all) {
    for (const { n } of path) n.forEach((v, i) => (i % 2 === 0 ? xs : ys).push(v))
  }
  const least = (all: number[]): number => all.reduce((a, b) => Math.min(a, b), Infinity)
  const most = (all: number[]): number => all.reduce((a, b) => Math.max(a, b), -Infinity)
  const box = { x0: least(xs), x1: most(xs), y0: least(ys), y1: most(ys) }
  return Math.max(box.x1 - box.x0, box.y1 - box.y0) > 0 ? box : undefined
}
