import { line, vec, type Vec } from '../../geometry'
import type { SizeText } from '../asked'
import type { Item } from '../items'
import type { Cell } from '../../notes'
import { symbolRuns } from '../symbols'
import { badgeItems, badgesBehind, badgesHeight, badgesWidth } from './badges'
import type { Badge, BadgeKind } from './marks'
import { textHeight, textWidth, written, type Style } from './marks'
import type { Content } from './leaders'

/** Lines of text one below the other, the first on the leader's own line. */
export function textContent(lines: readonly SizeText[], { letter }: Style): Content {
  const step = 1.6 * letter
  const width = Math.max(0, ...lines.map((l) => textWidth(l, letter)))
  const below = step * (lines.length - 1)
  const [first] = lines
  const lift = 0.8
  return {
    ...{ width, shelf: below, isUnderlined: true },
    height: below + lift + (first ? textHeight(first, letter) : letter),
    draw: (at) =>
      lines.flatMap((text, i) => {
        const y = at.y + below + (i === 0 ? lift : -step * i + 0.15 * letter)
        return written(text, vec(at.x, y), false, letter)
      }),
  }
}

/** What is told, with badges behind it. */
export function badged(content: Content, kinds: readonly BadgeKind[], style: Style): Content {
  if (kinds.length === 0) return content
  const { width, height, shelf, isUnderlined } = content
  const badgesAt = (at: Vec): Badge[] =>
    badgesBehind(kinds, style).map(({ kind, along, above }) => ({
      // Behind a frame in its middle, behind a line of text above the line.
      ...{
        kind,
        centre: vec(at.x + width + along, at.y + (isUnderlined ? shelf + above : height / 2)),
      },
    }))
  return {
    ...content,
    width: width + badgesWidth(kinds, style),
    height: isUnderlined ? Math.max(height, shelf + badgesHeight(kinds, style)) : height,
    badgesAt,
    draw: (at) => [
      ...content.draw(at),
      ...badgesAt(at).flatMap((b) => badgeItems(b.kind, b.centre, style)),
    ],
  }
}

const HIGH = 2

/** Cells side by side, framed (ISO 1101:2017, 8.2), or without a frame. */
export function cellContent(cells: readonly Cell[], framed: boolean, { letter }: Style): Content {
  const height = HIGH * letter
  const widths = cells.map((cell) =>
    'words' in cell ? textWidth({ text: cell.words }, letter) + letter : height,
  )
  const width = widths.reduce((a, b) => a + b, 0)
  return {
    ...{ width, height, shelf: framed ? height / 2 : 0, isUnderlined: !framed },
    draw: (at) => {
      let x = at.x
      return cells.flatMap((cell, i): Item[] => {
        const own = widths[i] ?? 0
        const left = x
        x += own
        const inner: Item[] =
          'words' in cell
            ? written(
                { text: cell.words },
                vec(left + letter / 2, at.y + letter / 2),
                false,
                letter,
              )
            : [symbolAt(cell.symbol, vec(left, at.y), height)]
        return framed ? [...inner, boxAt(left, at.y, own, height)] : inner
      })
    },
  }
}

/** A symbol drawn narrow in a square. */
function symbolAt(path: string, at: Vec, size: number): Item {
  return { kind: 'stroke', line: 'narrow', runs: symbolRuns(path, at, size) }
}

function boxAt(x: number, y: number, w: number, h: number): Item {
  const [a, b, c, d] = [vec(x, y), vec(x + w, y), vec(x + w, y + h), vec(x, y + h)]
  return {
    kind: 'stroke',
    line: 'narrow',
    runs: [[line(a, b), line(b, c), line(c, d), line(d, a)]],
  }
}
