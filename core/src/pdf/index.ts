import { jsPDF } from 'jspdf'
import {
  CHARACTER,
  DASHES,
  lineWidth,
  PLAIN_SIGNS,
  runsOf,
  signWays,
  type Page,
  type Item,
  type Words,
} from '../drawing'
import { controlOf, pointAt, radiusOf, sweepOf, tangentAt, type Piece, type Vec } from '../geometry'
import { fontInWoff } from './woff'

/** The WOFF files that sheets are written with, as packages name them: Latin, more of it, Cyrillic. */
export const FONT_FILES = ['latin', 'latin-ext', 'vietnamese', 'cyrillic', 'cyrillic-ext'].map(
  (script) => `@fontsource/ibm-plex-mono/files/ibm-plex-mono-${script}-400-normal.woff`,
)

/** What a PDF says of itself. */
export interface PdfAbout {
  readonly title: string
  readonly author: string
  readonly at: Date
  /** Where what begins, as readers list it beside the pages; pages from 0. */
  readonly chapters?: readonly { readonly title: string; readonly page: number }[]
}

export interface WrittenPdf {
  readonly bytes: Uint8Array
  /** Characters that none of the fonts has: they are written as question marks. */
  readonly missing: readonly string[]
}

/** Points (1/72 inch) in a mm. */
const POINTS = 72 / 25.4

/**
 * Sheets and reports as one PDF, a page each: lines and text as such, in true size, the fonts inside.
 * @param fonts WOFF files of a typeface of constant spacing, each for some scripts; the first that has a character is taken
 */
export function writeDrawingPdf(
  pages: readonly Page[],
  fonts: readonly Uint8Array[],
  about: PdfAbout,
): WrittenPdf {
  const [first] = pages
  if (!first) throw new Error('There is no sheet to write.')
  const page = ({ paper }: Page) => [paper.width, paper.height] as const
  const way = ({ paper }: Page) => (paper.width > paper.height ? 'landscape' : 'portrait')
  const doc = new jsPDF({
    ...{ unit: 'mm', format: [...page(first)], orientation: way(first) },
    ...{ compress: true, putOnlyUsedFonts: true, precision: 6 },
  })
  doc.setDocumentProperties({ title: about.title, author: about.author, creator: 'Lathica' })
  doc.setCreationDate(about.at)
  doc.setLanguage('en')
  doc.setLineJoin('round')
  const pen = new Pen(doc, fonts)
  pages.forEach((one, i) => {
    if (i > 0) doc.addPage([...page(one)], way(one))
    pen.height = one.paper.height
    for (const { items } of one.groups) for (const item of items) pen.draw(item, one.lines)
  })
  for (const { title, page: at } of about.chapters ?? []) {
    doc.outline.add(null, title, { pageNumber: at + 1 })
  }
  return { bytes: new Uint8Array(doc.output('arraybuffer')), missing: [...pen.missing] }
}

/** What jsPDF reads of a font. */
interface Glyphs {
  readonly cmap: { readonly unicode: { readonly codeMap: Readonly<Record<number, number>> } }
}

/** Draws items on the page in hand. */
class Pen {
  /** Of the page, in mm: its y runs downwards. */
  height = 0
  readonly missing = new Set<string>()
  private readonly fonts: readonly {
    readonly name: string
    readonly has: (code: number) => boolean
  }[]

  constructor(
    private readonly doc: jsPDF,
    files: readonly Uint8Array[],
  ) {
    this.fonts = files.map((file, i) => {
      const name = `sheet${i}`
      doc.addFileToVFS(`${name}.ttf`, base64(fontInWoff(file)))
      doc.addFont(`${name}.ttf`, name, 'normal')
      doc.setFont(name)
      const { metadata } = doc.getFont() as unknown as { readonly metadata: Glyphs }
      return { name, has: (code) => metadata.cmap.unicode.codeMap[code] !== undefined }
    })
  }

  draw(item: Item, wide: number): void {
    const { doc } = this
    switch (item.kind) {
      case 'stroke': {
        const width = lineWidth(item.line, wide)
        doc.setLineWidth(width)
        const dashes = DASHES[item.line].map((n) => n * width)
        doc.setLineDashPattern(dashes, 0)
        doc.setLineCap(dashes.length === 0 ? 'round' : 'butt')
        for (const run of item.runs) this.follow(run)
        if (item.runs.some((run) => run.length > 0)) doc.stroke()
        return
      }
      case 'fill': {
        const [r, g, b] = item.tone === 'ink' ? [0, 0, 0] : [255, 255, 255]
        doc.setFillColor(r ?? 0, g ?? 0, b ?? 0)
        for (const loop of item.loops) {
          this.follow(loop)
          doc.close()
        }
        doc.fillEvenOdd()
        return
      }
      case 'words':
        this.write(item)
    }
  }

  private follow(run: readonly Piece[]): void {
    const [first] = run
    if (!first) return
    const y = (p: Vec): number => this.height - p.y
    this.doc.moveTo(first.from.x, y(first.from))
    for (const piece of run) {
      if (piece.kind === 'line') this.doc.lineTo(piece.to.x, y(piece.to))
      else {
        for (const [a, b, c] of curvesOf(piece)) this.doc.curveTo(a.x, y(a), b.x, y(b), c.x, y(c))
      }
    }
  }

  private write({ at, height, turned, text }: Words): void {
    const { doc } = this
    // Capitals are as high as they are to be.
    doc.setFontSize((height * CHARACTER * POINTS) / 0.6)
    doc.setTextColor(0, 0, 0)
    const along = (by: number, up = 0): Vec =>
      turned ? { x: at.x - up, y: at.y + by } : { x: at.x + by, y: at.y + up }
    const put = (words: string, from: number, isSeen: boolean): void => {
      const place = along(from * CHARACTER * height)
      doc.text(words, place.x, this.height - place.y, {
        ...(turned ? { angle: 90 } : {}),
        renderingMode: isSeen ? 'fill' : 'invisible',
      })
    }
    for (const { text: run, from, isSign } of runsOf(text)) {
      if (!isSign) {
        for (const piece of this.inFonts(run)) {
          doc.setFont(piece.font)
          put(piece.text, from + piece.from, true)
        }
        continue
      }
      // No font has the sign: it is drawn, and what is found for it stands under it unseen.
      doc.setFont(this.fonts[0]?.name ?? 'courier')
      put(PLAIN_SIGNS[run] ?? '', from, false)
      doc.setLineWidth(height / 10)
      doc.setLineDashPattern([], 0)
      doc.setLineCap('round')
      for (const way of signWays(run)) {
        const numbers = way.map((n) =>
          pairs(n).map(([u, v]) => along((from * CHARACTER + u) * height, v * height)),
        )
        numbers.forEach(([a, b, c], i) => {
          if (!a) return
          const y = (p: Vec): number => this.height - p.y
          if (i === 0) doc.moveTo(a.x, y(a))
          else if (b && c) doc.curveTo(a.x, y(a), b.x, y(b), c.x, y(c))
          else doc.lineTo(a.x, y(a))
        })
        doc.stroke()
      }
    }
  }

  /** Stretches of a text that one font has each. */
  private inFonts(
    text: string,
  ): readonly { text: string; readonly from: number; readonly font: string }[] {
    const pieces: { text: string; from: number; font: string }[] = []
    ;[...text].forEach((character, from) => {
      const code = character.codePointAt(0) ?? 0
      const font = this.fonts.find((f) => f.has(code))
      if (!font) this.missing.add(character)
      const name = font?.name ?? this.fonts[0]?.name ?? 'courier'
      const last = pieces.at(-1)
      if (last?.font === name) last.text += font ? character : '?'
      else pieces.push({ text: font ? character : '?', from, font: name })
    })
    return pieces
  }
}

const pairs = (numbers: readonly number[]): (readonly [number, number])[] =>
  numbers.flatMap((n, i) => (i % 2 === 0 ? [[n, numbers[i + 1] ?? 0] as const] : []))

/** An arc or a free curve as cubics: of arcs an eighth of a turn each at most, which is right to 1e-6 of the radius. */
function curvesOf(piece: Exclude<Piece, { kind: 'line' }>): (readonly [Vec, Vec, Vec])[] {
  if (piece.kind === 'cubic') {
    const [, a, b, c] = controlOf(piece)
    return a && b && c ? [[a, b, c]] : []
  }
  const sweep = sweepOf(piece)
  const count = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI / 4) - 1e-9))
  const handle = radiusOf(piece) * (4 / 3) * Math.tan(Math.abs(sweep) / count / 4)
  return Array.from({ length: count }, (_, i) => {
    const [t, u] = [i / count, (i + 1) / count]
    const [from, to] = [pointAt(piece, t), pointAt(piece, u)]
    const [out, into] = [tangentAt(piece, t), tangentAt(piece, u)]
    return [
      { x: from.x + out.x * handle, y: from.y + out.y * handle },
      { x: to.x - into.x * handle, y: to.y - into.y * handle },
      to,
    ] as const
  })
}

/** Bytes as text (RFC 4648), a stretch at a time: a call takes only so many arguments. */
function base64(bytes: Uint8Array): string {
  let text = ''
  for (let i = 0; i < bytes.length; i += 0x8000) {
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000))
  }
  return btoa(text)
}
