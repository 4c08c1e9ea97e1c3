import { line, vec, type Piece, type Vec } from '../geometry'
import { landOf, noteCells, noteStates, threadCuts, type Cell, type NoteState } from '../notes'
import { callsOf, type PartState } from '../route'
import { cellContent, textContent } from './layout/contents'
import { anchorsOf, type AlongSetting } from './layout/along'
import type { LeaderAsk } from './layout/leaders'
import { strokes, type Item } from './items'
import { KNURLS } from '../standards'
import { wrapped } from './lettering'
import { rectangle } from './paper/frame'
import { hatchLines } from './views/hatch'

/** What notes are placed with: whose bodies’ are shown, and which were taken off. */
export interface NoteSetting extends Pick<
  AlongSetting,
  'by' | 'half' | 'view' | 'moved' | 'style'
> {
  readonly isHere: (body: string) => boolean
  readonly hidden: ReadonlySet<string>
}

/** What the notes of a part ask for on the view along its axis. */
export function noteLeaders(state: PartState, setting: NoteSetting): LeaderAsk[] {
  const notes = noteStates(state)
    .filter(({ note }) => setting.isHere(note.body) && !setting.hidden.has(`note/${note.id}`))
    .flatMap((told) => leaderOf(told, setting) ?? [])
  const calls = callsOf(state).flatMap((call, i): LeaderAsk[] => {
    const id = `call/${i}`
    if (!setting.isHere(call.body) || setting.hidden.has(id)) return []
    const made: LeaderAsk = {
      ...{ id, said: call.words, end: 'arrow', moved: setting.moved.get(id) },
      content: textContent([{ text: call.words }], setting.style),
      // At an end the axis itself is pointed at, from either side of it.
      anchors: [1, -1].map((side) => ({
        at: vec(call.at.x * setting.by, call.at.y * setting.by),
        out: diagonal(call.out.x, side),
      })),
    }
    return [made]
  })
  return [...notes, ...calls]
}

const diagonal = (x: number, y: number) => {
  const length = Math.hypot(x, y)
  return vec(x / length, y / length)
}

function leaderOf(
  { note, words, foot, edges }: NoteState,
  setting: NoteSetting,
): LeaderAsk | undefined {
  // How a face is coloured is seen on the solid; what is said of all others stands beside the title block.
  if (note.kind === 'colour' || !foot) return undefined
  const cells = noteCells(note, words)
  const framed = note.kind === 'frame' || note.kind === 'datum'
  const isText = cells.length === 1 && !framed
  const content = isText
    ? textContent(
        wrapped(words, LINE).map((text) => ({ text })),
        setting.style,
      )
    : cellContent(cells, framed, setting.style)
  // Along the face, too: several may stand on one.
  const along = edges.flatMap(({ piece }) => {
    if (piece.kind !== 'line') return []
    return [0.3, 0.7, 0.15, 0.85].map((t) =>
      vec(
        piece.from.x + (piece.to.x - piece.from.x) * t,
        piece.from.y + (piece.to.y - piece.from.y) * t,
      ),
    )
  })
  const from = (at: Vec): LeaderAsk['anchors'] =>
    anchorsOf({ kind: 'place', at, out: foot.out }, setting)
  return {
    ...{ id: `note/${note.id}`, said: `${note.kind}: ${words}`, content },
    ...{ anchors: from(foot.at), others: along.flatMap(from) },
    ...{
      end: note.kind === 'datum' ? 'datum' : 'arrow',
      moved: setting.moved.get(`note/${note.id}`),
    },
  }
}

/** Lines longer than this are broken between words, in characters. */
const LINE = 28

/** Narrow lines at the roots of outside threads and the crests of inside ones (ISO 6410-1:1993, 3.2). */
export function threadLines(
  state: PartState,
  { by, half, isCut }: Pick<AlongSetting, 'by' | 'half' | 'isCut'>,
  isHere: (body: string) => boolean,
): Item[] {
  return threadCuts(state).flatMap(({ body, side, from, to, major, root }): Item[] => {
    if (!isHere(body)) return []
    if (side === 'inside' && !isCut) return []
    const r = (side === 'outside' ? root : major) * by
    const sides = side === 'inside' && half ? [1] : [1, -1]
    const runs = sides.map((s): Piece[] => [line(vec(from * by, s * r), vec(to * by, s * r))])
    // It ends in a wide line where no shoulder ends it; outside the outline has it.
    return [{ kind: 'stroke', line: 'narrow', runs }]
  })
}

/** How far in from its outline a knurl is drawn, and how near to each other its lines are at least, in mm of paper. */
const KNURL_DEEP = 5
const KNURL_CLOSE = 1

/** Knurls in part, as narrow lines on the outside below the axis (ISO 13444:2012). */
export function knurlLines(
  state: PartState,
  { by }: Pick<AlongSetting, 'by'>,
  isHere: (body: string) => boolean,
): Item[] {
  return noteStates(state).flatMap(({ note, edges, problem }): Item[] => {
    const land = landOf(edges)
    if (note.kind !== 'knurl' || problem || !land || !isHere(note.body)) return []
    const [x0, x1, y0] = [land.from * by, land.to * by, -land.radius * by]
    const y1 = y0 + Math.min(KNURL_DEEP, land.radius * by)
    const band = rectangle(x0, y0, x1 - x0, y1 - y0)
    const apart = Math.max(KNURL_CLOSE, Number(note.pitch) * by)
    const lines = KNURLS[note.form].lines.flatMap((degrees) =>
      hatchLines([band], { angle: (degrees * Math.PI) / 180, apart }),
    )
    return [strokes('narrow', lines)]
  })
}

/** A chain line beside faces that are treated, outside the material (ISO 15787:2016). */
export function treatedLines(
  state: PartState,
  { by, style: { letter } }: Pick<AlongSetting, 'by' | 'style'>,
  isHere: (body: string) => boolean,
): Item[] {
  const away = letter / 3
  return noteStates(state).flatMap(({ note, edges }): Item[] => {
    if (note.kind !== 'treatment' || !isHere(note.body)) return []
    const runs = edges.flatMap(({ piece }): Piece[][] => {
      if (piece.kind !== 'line') return []
      const [dx, dy] = [piece.to.x - piece.from.x, piece.to.y - piece.from.y]
      const length = Math.hypot(dx, dy)
      const off = vec((dy / length) * away, (-dx / length) * away)
      const put = ({ x, y }: { x: number; y: number }) => vec(x * by + off.x, y * by + off.y)
      return [[line(put(piece.from), put(piece.to))]]
    })
    return runs.length === 0 ? [] : [{ kind: 'stroke', line: 'treated', runs }]
  })
}

/** What is said of all other faces, and numbered words, as lines beside the title block. */
export function generalNotes(
  state: PartState,
  { isHere, hidden }: Pick<NoteSetting, 'isHere' | 'hidden'>,
): readonly NoteLine[] {
  return noteStates(state).flatMap(({ note, words, foot }): NoteLine[] => {
    const id = `note/${note.id}`
    if ((note.body !== '' && !isHere(note.body)) || hidden.has(id)) return []
    const isFlag = note.kind === 'text' && note.flag
    if (foot && !isFlag) return []
    if (note.kind === 'colour') return []
    const said = `${note.kind}: ${words}`
    if (isFlag || note.kind === 'text') return [{ id, said, cells: [{ words }] }]
    return [{ id, said, cells: noteCells(note, words) }]
  })
}

/** A line beside the title block; without an id where it asks nothing itself. */
export interface NoteLine {
  readonly id: string
  readonly said: string
  readonly cells: readonly Cell[]
}
