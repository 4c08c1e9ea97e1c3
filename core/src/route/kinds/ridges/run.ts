import { fail, succeed, type Result } from '../../../result'
import {
  add,
  distance,
  lengthOf,
  pointAt,
  reversed,
  scale,
  speedAt,
  stretch,
  tangentAt,
  type Piece,
} from '../../../geometry'
import {
  combine,
  edgeKey,
  loopsOf,
  profileOf,
  type Section,
  type SectionEdge,
} from '../../../section'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import {
  changed,
  lost,
  material,
  positive,
  told,
  wholeCount,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import type { RidgesStep } from '../../../part'
import { HIGHEST_ROUND, RIDGE_PIECES, type Along } from './shapes'

/** More ridges than this are a mistake. */
const MOST = 500

/** Raises ridges on a face, or sinks them into it, spaced evenly by the length along its outline. */
export function ridges(step: RidgesStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const runs = runsNamed(before.value, step.on)
  const [run] = [...runs].sort((a, b) => lengthAlong(b) - lengthAlong(a))
  if (!run) return lost('The face of these ridges', step.on)
  const length = lengthAlong(run)
  const count = countOf(step, context, length)
  if (!count.ok) return count
  const height = positive(context, step.height, 'length', 'height')
  if (!height.ok) return height
  const fade = step.fade.trim() === '' ? succeed(0) : positive(context, step.fade, 'length', 'fade')
  if (!fade.ok) return fade
  if (2 * fade.value > length + VERTEX_TOLERANCE) {
    const most = told(context, length / 2)
    return fail('ridges.fade', 'They fade over more than half of the face.', `Type up to ${most}.`)
  }
  const pitch = length / count.value
  if (step.shape === 'round' && height.value > HIGHEST_ROUND * pitch + VERTEX_TOLERANCE) {
    return fail(
      'ridges.high',
      'Round ridges as high as this would be more than half circles.',
      `Type up to ${told(context, HIGHEST_ROUND * pitch)}, fewer ridges, or another shape.`,
    )
  }
  const sign = step.side === 'out' ? -1 : 1
  const tool = toolOf(step, run, count.value, (far) => {
    const end = Math.min(far, length - far)
    return sign * height.value * (fade.value > 0 ? Math.min(1, end / fade.value) : 1)
  })
  if (!tool.ok) return tool
  const effect = step.side === 'out' ? 'add' : 'cut'
  const after = combine(before.value, tool.value, effect)
  const made = { section: tool.value, effect, body: step.body } as const
  const outcome = changed(context, step.body, before.value, after, made)
  if (!outcome.ok) return outcome
  const notes = [
    ...(step.by === 'pitch' ? [`${count.value} at a pitch of ${told(context, pitch)}.`] : []),
    ...(runs.length > 1 ? ['The face is parted: they stand on its longest part.'] : []),
  ]
  return succeed({ ...outcome.value, notes: [...outcome.value.notes, ...notes] })
}

function countOf(step: RidgesStep, context: StepContext, length: number): Result<number> {
  if (step.by === 'count') {
    const count = wholeCount(context, step.count, 'number of ridges')
    return !count.ok || count.value <= MOST ? count : tooMany
  }
  const pitch = positive(context, step.pitch, 'length', 'pitch')
  if (!pitch.ok) return pitch
  const count = Math.max(1, Math.round(length / pitch.value))
  return count <= MOST ? succeed(count) : tooMany
}

const tooMany: Result<never> = fail(
  'ridges.many',
  'These are too many ridges.',
  `Ask for up to ${MOST}.`,
)

/** The parts of the outline that carry a name, each as edges that follow one another. */
function runsNamed(section: Section, key: string): readonly (readonly Piece[])[] {
  return loopsOf(section).flatMap((loop) => {
    const isOwn = (e: SectionEdge | undefined): boolean =>
      e !== undefined && edgeKey(e.name) === key
    const start = loop.findIndex((e, i) => isOwn(e) && !isOwn(loop.at(i - 1)))
    // A loop that is all of one name has no beginning of its own.
    const ordered = start < 0 ? loop : [...loop.slice(start), ...loop.slice(0, start)]
    const runs: Piece[][] = []
    ordered.forEach((e, i) => {
      if (!isOwn(e)) return
      if (i === 0 || !isOwn(ordered[i - 1])) runs.push([])
      runs.at(-1)?.push(e.piece)
    })
    return runs
  })
}

const lengthAlong = (run: readonly Piece[]): number => run.reduce((s, p) => s + lengthOf(p), 0)

/** A place of a run by the length along it: which of its pieces it is on, and where. */
interface Placed extends Along {
  readonly piece: number
  readonly t: number
}

/** Rounds of Newton's method, which need few along what hardly changes its speed. */
const ROUNDS = 12

function placed(run: readonly Piece[], far: number): Placed {
  let left = far
  let number = 0
  for (const [i, piece] of run.entries()) {
    number = i
    const length = lengthOf(piece)
    if (left <= length || i === run.length - 1) break
    left -= length
  }
  const piece = run[number] as Piece
  const length = lengthOf(piece)
  let t = Math.min(1, Math.max(0, left / length))
  if (piece.kind === 'cubic' && t > 0 && t < 1) {
    for (let i = 0; i < ROUNDS; i++) {
      const off = lengthOf(stretch(piece, piece.from, pointAt(piece, t))) - left
      t = Math.min(1, Math.max(0, t - off / speedAt(piece, t)))
      if (Math.abs(off) < 1e-10 * length) break
    }
  }
  return { piece: number, t, at: pointAt(piece, t), way: tangentAt(piece, t) }
}

/** What ridges take up beside a run: closed along it. @param heightAt to the left of the run, in mm */
function toolOf(
  step: RidgesStep,
  run: readonly Piece[],
  count: number,
  heightAt: (far: number) => number,
): Result<Section> {
  const length = lengthAlong(run)
  const regions = Array.from({ length: count }, (_, i) => {
    const [a, b] = [i, i + 1].map((k) => placed(run, (k * length) / count))
    const middle = placed(run, ((i + 0.5) * length) / count)
    if (!a || !b) return []
    const left = { x: -middle.way.y, y: middle.way.x }
    const crest = {
      at: add(middle.at, scale(left, heightAt(((i + 0.5) * length) / count))),
      way: middle.way,
    }
    const named = (what: string): SectionEdge['name'] => ({
      ...{ step: step.id, role: 'made' },
      entity: i === 0 ? what : `${what}.${i + 1}`,
    })
    const over = RIDGE_PIECES[step.shape](a, crest, b)
    const foot = footOf(run, a, b)
    return profileOf(
      [
        ...over.map((piece) => ({ piece, name: named('ridge') })),
        ...foot.map((piece) => ({ piece, name: named('foot') })),
      ],
      step.id,
    ).section.regions
  })
  return regions.every((r) => r.length > 0) ? succeed({ regions: regions.flat() }) : crossing
}

const crossing: Result<never> = fail(
  'ridges.crossing',
  'Ridges like these would cut through themselves or the axis.',
  'Make them lower, fewer, or of another shape.',
)

/** The stretch of a run between two of its places, back from the second to the first. */
function footOf(run: readonly Piece[], a: Placed, b: Placed): readonly Piece[] {
  const stretches: Piece[] = []
  for (let i = a.piece; i <= b.piece; i++) {
    const piece = run[i]
    if (!piece) continue
    const from = i === a.piece ? a.at : piece.from
    const to = i === b.piece ? b.at : piece.to
    if (distance(from, to) > VERTEX_TOLERANCE) stretches.push(stretch(piece, from, to))
  }
  return stretches.reverse().map(reversed)
}
