import { vec } from '../geometry'
import { massProperties, materialOf } from '../inspect'
import { generalWords } from '../standards'
import { formatMass } from '../units'
import { edgePlaceAt } from './asked/drawn'
import { toldOfGaps } from './complete'
import { contentsOf, type SheetContent } from './content'
import type { Group } from './items'
import { shifted, type Laid } from './layOut'
import { badgeWords } from './layout/badges'
import { numbersOf } from './numbers'
import { fieldAt, frameOf } from './paper/frame'
import { readScale } from './paper/scales'
import { spaceOf } from './paper/sizes'
import { blockOf, titleOf } from './paper/title'
import { changeMarks, changesSince } from './released'
import { keyOf, type SeenLines } from './seen'
import type { Drawing, SheetLabel } from './sheet'

/**
 * A sheet as it was laid out, with its frame, its title block and its numbers.
 * @param mend what would let all of it fit, where it does not
 */
export function finished(
  content: SheetContent,
  made: Laid,
  seen: SeenLines,
  mend: string,
): Drawing {
  const { state, setup, drawing, index, isHere, asked, beside } = content
  const { part } = state
  const { paper, scale, style } = made
  const bodies = state.bodies.filter((b) => !b.reference && isHere(b.bodyId))
  const mass = massProperties(part, bodies)
  const materials = new Set(
    bodies
      .filter((b) => b.section.regions.length > 0)
      .map((b) => materialOf(part, b.bodyId)?.name ?? ''),
  )
  const own = part.bodies.find((b) => b.id === setup.body)
  const title = titleOf(paper, blockOf(drawing, spaceOf(paper)), drawing.title, {
    name: [...new Set([part.name, own?.name ?? '', setup.name])]
      .filter((n) => n !== '')
      .join(' – '),
    ...{ scale: scale.words, projection: setup.projection },
    sheet: `${index + 1} / ${drawing.sheets.length}`,
    material:
      materials.size === 1 ? ([...materials][0] ?? '') : materials.size > 1 ? 'see the list' : '',
    mass: mass && mass.mass > 0 ? formatMass(mass.mass, part.units) : '',
    general: generalWords(part) ?? '',
  })
  const shows = new Map([...asked, ...beside].map((a) => [a.id, a.shows]))
  const numbers = numbersOf(state)
  const labels = new Map(
    made.placed.map(({ placed, off }) => {
      const at = vec(placed.at.x + off.x, placed.at.y + off.y)
      const number = numbers.get(placed.id)
      const label: SheetLabel = {
        ...{ at, field: fieldAt(paper, at), said: placed.said, shows: shows.get(placed.id) ?? [] },
        ...{ ...placed.moves, isFixed: placed.isFixed === true },
        ...(number === undefined ? {} : { number }),
      }
      return [placed.id, label] as const
    }),
  )
  const markOf = changeMarks(drawing.revisions)
  const placed = made.placed.map(({ placed: p, off }): Group => {
    const words = (p.badges ?? []).map((b) =>
      badgeWords(
        b.kind === 'number' ? String(numbers.get(p.id) ?? '') : (markOf(p) ?? ''),
        b,
        style,
      ),
    )
    return {
      role: p.id.startsWith('note/') ? 'note' : 'size',
      ...{ id: p.id, said: p.said, items: [...p.items, ...words].map((i) => shifted(i, off)) },
    }
  })
  return {
    ...{ paper, scale, labels, places: made.places, lines: Number(setup.lines) },
    groups: [frameOf(paper), ...made.groups, ...placed, ...made.band, title],
    told: [
      ...toldOf(content, made, mend),
      ...toldOfGaps(content),
      ...toldTwice(content),
      ...toldOfSeen(content, seen),
      ...toldOfRevision(content, labels),
    ],
  }
}

function toldOfSeen({ looks }: SheetContent, seen: SeenLines): string[] {
  const missing = looks.all.filter((ask) => !seen.has(keyOf(ask)))
  if (missing.length > 0 && missing.every((ask) => ask.from === 'askew')) {
    return ['The picture is not drawn yet: the solid is being looked at.']
  }
  return missing.length > 0
    ? ['Holes, flats and slots are not in the views yet: the solid is being looked at.']
    : []
}

/** How many sizes stand on a sheet before this one too. */
function toldTwice({ state, index, asked }: SheetContent): string[] {
  const before = contentsOf(state).slice(0, index)
  const known = new Set(before.flatMap((c) => (c ? c.asked.map((a) => a.id) : [])))
  const n = asked.filter((a) => a.shows.length > 0 && known.has(a.id)).length
  if (n === 0) return []
  return [`${n} ${n === 1 ? 'size stands' : 'sizes stand'} on a sheet before this one, too.`]
}

/** Of a part with one sheet: what a release had, and this has no longer. */
function toldOfRevision(
  { drawing }: SheetContent,
  labels: ReadonlyMap<string, SheetLabel>,
): string[] {
  if (drawing.sheets.length > 1) return []
  const gone = changesSince(drawing.revisions, labels).flatMap(({ before, now }) =>
    before !== undefined && now === undefined ? [before] : [],
  )
  const mark = drawing.revisions.at(-1)?.mark ?? ''
  return gone.length === 0 ? [] : [`Gone since revision ${mark}: ${gone.join('; ')}.`]
}

/** Edges that were chosen by hand, and are no longer there. */
function toldOfEdges({ state, setup }: SheetContent): string[] {
  const n = setup.enlarged.filter((e) => !edgePlaceAt(state, e)).length
  const { originAt } = setup
  const isOriginLost =
    setup.lengths === 'running' &&
    setup.origin === 'edge' &&
    !(originAt && edgePlaceAt(state, originAt))
  return [
    ...(n === 0
      ? []
      : [
          `${n} ${n === 1 ? 'place that was drawn larger has' : 'places that were drawn larger have'} lost its edge, and ${n === 1 ? 'is' : 'are'} left out.`,
        ]),
    ...(isOriginLost
      ? ['The edge that lengths ran from is gone: they run from where most begin.']
      : []),
  ]
}

function toldOf(content: SheetContent, { left, fits, paper, scale }: Laid, mend: string): string[] {
  const { state, setup, hidden } = content
  const n = left.length
  const { lost, unseen } = content.drawn
  return [
    ...(fits ? [] : [`At ${scale.words} the views do not fit on ${paper.name}: ${mend}.`]),
    ...(n === 0
      ? []
      : [
          `${n} ${n === 1 ? 'label' : 'labels'} found no room and ${n === 1 ? 'is' : 'are'} left out: choose a larger sheet or scale.`,
        ]),
    ...(hidden.size === 0
      ? []
      : [
          `${hidden.size} ${hidden.size === 1 ? 'label was' : 'labels were'} taken off this sheet.`,
        ]),
    ...(lost === 0
      ? []
      : [
          `${lost} ${lost === 1 ? 'size that was drawn has' : 'sizes that were drawn have'} lost an edge, and ${lost === 1 ? 'is' : 'are'} left out.`,
        ]),
    ...(unseen === 0
      ? []
      : [
          `${unseen} ${unseen === 1 ? 'size was' : 'sizes were'} drawn on the view from an end that this sheet does not have: show that end.`,
        ]),
    ...toldOfEdges(content),
    ...[setup, ...setup.enlarged].flatMap(({ scale: written }) =>
      written !== '' && !readScale(written)
        ? [`“${written}” is no scale: write one as in 1:2.`]
        : [],
    ),
    ...state.steps.flatMap((s) =>
      s.status === 'failed'
        ? [
            `Step ${state.part.route.find((r) => r.id === s.stepId)?.number ?? ''} fails, and is not drawn.`,
          ]
        : [],
    ),
  ]
}
