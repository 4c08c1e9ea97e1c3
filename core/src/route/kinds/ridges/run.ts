import { fail, succeed, type Result } from '../../../result'
import {
  add,
  lengthOf,
  nearestOn,
  pointAt,
  scale,
  simplePieces,
  speedAt,
  stretch,
  tangentAt,
  type Piece,
  type Vec,
} from '../../../geometry'
import {
  edgeKey,
  liesOnAxis,
  loopsOf,
  profileOf,
  type Loop,
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
  const [run] = [...runs].sort((a, b) => lengthAlong(b.pieces) - lengthAlong(a.pieces))
  if (!run) return lost('The face of these ridges', step.on)
  const length = lengthAlong(run.pieces)
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
  const sign: 1 | -1 = step.side === 'out' ? -1 : 1
  const over = piecesOver(step, run.pieces, count.value, (far) => {
    const end = Math.min(far, length - far)
    return sign * height.value * (fade.value > 0 ? Math.min(1, end / fade.value) : 1)
  })
  if (strays(run.pieces, over, sign)) return wide
  const loops = loopsOf(before.value).map((loop) => {
    if (loop !== run.loop) return loop
    const gone = new Set(run.edges)
    const [first] = run.edges
    return loop.flatMap((e) => (e === first ? over.flat() : gone.has(e) ? [] : [e]))
  })
  // What stands beside the face runs along it where it begins: it is put in its place, and looked at as it is drawn.
  const edges = loops.flat().filter((e) => !liesOnAxis(e))
  const { section, faults } = profileOf(edges, step.id)
  if (faults.length > 0 || section.regions.length === 0) return crossing
  const outcome = changed(context, step.body, before.value, section)
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

/** A part of the outline that carries a name. */
interface Run {
  readonly loop: Loop
  readonly edges: readonly SectionEdge[]
  readonly pieces: readonly Piece[]
}

/** The parts of the outline that carry a name, each as edges that follow one another. */
function runsNamed(section: Section, key: string): readonly Run[] {
  return loopsOf(section).flatMap((loop) => {
    const isOwn = (e: SectionEdge | undefined): boolean =>
      e !== undefined && edgeKey(e.name) === key
    const start = loop.findIndex((e, i) => isOwn(e) && !isOwn(loop.at(i - 1)))
    // A loop that is all of one name has no beginning of its own.
    const ordered = start < 0 ? loop : [...loop.slice(start), ...loop.slice(0, start)]
    const runs: SectionEdge[][] = []
    ordered.forEach((e, i) => {
      if (!isOwn(e)) return
      if (i === 0 || !isOwn(ordered[i - 1])) runs.push([])
      runs.at(-1)?.push(e)
    })
    return runs.map((edges): Run => ({ loop, edges, pieces: edges.map((e) => e.piece) }))
  })
}

const lengthAlong = (run: readonly Piece[]): number => run.reduce((s, p) => s + lengthOf(p), 0)

/** Rounds of Newton's method, which need few along what hardly changes its speed. */
const ROUNDS = 12

/** A place of a run by the length along it. */
function placed(run: readonly Piece[], far: number): Along {
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
  return { at: t === 1 ? piece.to : pointAt(piece, t), way: tangentAt(piece, t) }
}

/** What ridges put in the place of a run, ridge by ridge. @param heightAt to the left of the run, in mm */
function piecesOver(
  step: RidgesStep,
  run: readonly Piece[],
  count: number,
  heightAt: (far: number) => number,
): readonly (readonly SectionEdge[])[] {
  const length = lengthAlong(run)
  const feet = Array.from({ length: count + 1 }, (_, k) => placed(run, (k * length) / count))
  return feet.slice(1).map((to, i) => {
    const from = feet[i] ?? to
    const far = ((i + 0.5) * length) / count
    const middle = placed(run, far)
    const left = { x: -middle.way.y, y: middle.way.x }
    const crest = { at: add(middle.at, scale(left, heightAt(far))), way: middle.way }
    const name: SectionEdge['name'] = {
      ...{ step: step.id, role: 'made' },
      entity: i === 0 ? 'ridge' : `ridge.${i + 1}`,
    }
    const pieces = RIDGE_PIECES[step.shape](from, crest, to).flatMap(simplePieces)
    return pieces.map((piece) => ({ piece, name }))
  })
}

/** Places of a ridge, as shares of its width, where it has to be on its side of the face. */
const QUARTERS = [0.25, 0.75]

/** Whether ridges run through the face that they stand on, as straight flanks do where they span what bulges. */
function strays(
  run: readonly Piece[],
  over: readonly (readonly SectionEdge[])[],
  sign: 1 | -1,
): boolean {
  const width = lengthAlong(run) / over.length
  return over.some((ridge, i) =>
    QUARTERS.some((share) => {
      const near = (p: Vec): number => Math.min(...ridge.map((e) => nearestOn(e.piece, p).distance))
      const { at, way } = placed(run, (i + share) * width)
      const left = { x: -way.y, y: way.x }
      // On the right side, what is over a place is nearer to one a little off it there than to one on the other side.
      const off = 1e-3 * width
      const [to, fro] = [
        near(add(at, scale(left, sign * off))),
        near(add(at, scale(left, -sign * off))),
      ]
      return to > fro
    }),
  )
}

const wide: Result<never> = fail(
  'ridges.wide',
  'Ridges as wide as these run through the face that they stand on, which is curved.',
  'Ask for more of them, make them higher, or let them be waves.',
)

const crossing: Result<never> = fail(
  'ridges.crossing',
  'Ridges like these would cut through themselves or the axis.',
  'Make them lower, fewer, or of another shape.',
)
