import { decodeExchangeText } from './text'

/** The instances of an exchange file (ISO 10303-21) by their numbers; each is read when it is asked for. */
export class Instances {
  private readonly places = new Map<number, readonly [start: number, end: number]>()

  constructor(private readonly text: string) {
    const head = /#\s*(\d+)\s*=\s*/y
    let at = Math.max(0, text.indexOf('DATA;'))
    for (;;) {
      const next = text.indexOf('#', at)
      if (next < 0) return
      head.lastIndex = next
      const found = head.exec(text)
      if (!found) {
        at = next + 1
        continue
      }
      const start = next + found[0].length
      const end = endOf(text, start)
      this.places.set(Number(found[1]), [start, end])
      at = end + 1
    }
  }

  /** What an instance is, with what it is told by; empty for one that is not there. */
  of(id: number): string {
    const place = this.places.get(id)
    return place ? this.text.slice(...place) : ''
  }

  /** The greatest number of all; 0 where there are none. */
  largest(): number {
    return [...this.places.keys()].reduce((most, id) => Math.max(most, id), 0)
  }

  /** The name of the product that a shape is of; empty where there is none. */
  productOf(shape: number): string {
    for (const id of this.below(shape, 100)) {
      if (!/^PRODUCT\s*\(/.test(this.of(id))) continue
      const [own = '', name = ''] = this.texts(id)
      return name.trim() === '' ? own : name
    }
    return ''
  }

  /** The numbers of the instances that are several things at once. */
  complex(): number[] {
    return [...this.places].flatMap(([id, [start]]) => (this.text[start] === '(' ? [id] : []))
  }

  /** The numbers of all instances that begin with one of these words. */
  called(...words: readonly string[]): number[] {
    const found: number[] = []
    for (const [id, [start]] of this.places) {
      const isCalled = (word: string): boolean =>
        this.text.startsWith(word, start) && /[\s(]/.test(this.text[start + word.length] ?? '(')
      if (words.some(isCalled)) {
        found.push(id)
      }
    }
    return found
  }

  /** The numbers of the instances that one is told by, in order. */
  refs(id: number): number[] {
    return [...bare(this.of(id)).matchAll(/#(\d+)/g)].map((m) => Number(m[1]))
  }

  /** The texts that one is told by, in order. */
  texts(id: number): string[] {
    return [...this.of(id).matchAll(/'((?:[^']|'')*)'/g)].map((m) => decodeExchangeText(m[1] ?? ''))
  }

  /** All instances that can be come to from one, itself first, each once and at most so many. */
  *below(id: number, most = 10_000): Generator<number> {
    const seen = new Set([id])
    const open = [id]
    for (let next = open.pop(); next !== undefined && seen.size <= most; next = open.pop()) {
      yield next
      for (const ref of this.refs(next).reverse()) {
        if (seen.has(ref)) continue
        seen.add(ref)
        open.push(ref)
      }
    }
  }
}

/** Where an instance ends: the next semicolon that stands in no text. */
function endOf(text: string, start: number): number {
  let at = start
  for (;;) {
    const end = text.indexOf(';', at)
    if (end < 0) return text.length
    const quote = text.indexOf("'", at)
    if (quote < 0 || quote > end) return end
    const close = text.indexOf("'", quote + 1)
    if (close < 0) return text.length
    at = close + 1
  }
}

/** Without its texts. */
const bare = (instance: string): string => instance.replace(/'(?:[^']|'')*'/g, "''")
