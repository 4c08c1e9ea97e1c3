import type { BroughtSolid } from '../edit'
import { simplePieces, type Piece } from '../geometry'
import { createPart, type Body, type Part } from '../part'
import { evaluate } from '../route'
import { profileOf, solidProperties } from '../section'
import type { UnitSettings } from '../units'
import { accountFor, type Account } from './account'
import { withSketch } from './changes'
import type { Feature } from './features'
import type { Finish } from './finishes'
import { asItCame, movedBy, withKept } from './kept'
import { outlineOf } from './outline'
import { volumeOf, withTurned, type Turned } from './profile'
import { isSameSolid, rebuilt, type Comparison, type Rebuilt, type Weigh } from './rebuilt'
import { frameOf, standOf } from './stand'
import type { ForeignSolid, Line } from './types'

/** Volumes that differ by less than this share are one. */
const SAME_VOLUME = 1e-5
/** What has less than this of a solid, or more by as much, is not its half-section. */
const LEAST_SHARE = 0.4

/** What one solid of a file became. */
export interface RecoveredSolid {
  /** As its file calls it; empty where it does not. */
  readonly name: string
  /** Whether its half-section was found, and it is turned from that. */
  readonly isTurned: boolean
  /** Whether it stands there as it came: it has more than what was rebuilt, or is not turned. */
  readonly isKept: boolean
  /** The body that stands for it. */
  readonly body: string
  /** What was rebuilt of it, as a body to go by, where it is kept as it came. */
  readonly beside?: string
  /** The profile that it is turned from. */
  readonly sketch?: string
  /** Steps that were found: bevels and roundings, holes, flats, slots. */
  readonly steps: readonly {
    readonly kind: Finish['kind'] | Feature['kind']
    readonly count: number
    readonly step: string
  }[]
  /** How what was rebuilt compares with it; of one that is turned. */
  readonly comparison?: Comparison
}

/** What came of a file with solids. */
export interface RecoveredPart {
  readonly part: Part
  /** One for each solid, in the order of the file. */
  readonly solids: readonly RecoveredSolid[]
}

/** What is known of a file beside its solids. */
export interface Recovering {
  readonly units?: UnitSettings
  /** Asks the solid kernel whether steps make the solid; without it none are looked for. */
  readonly weigh?: Weigh
  /** Is told before each solid, by its number from 1. */
  readonly tell?: (solid: number) => void
}

/**
 * A part from solids that came from elsewhere: the half-section of each as a sketch that is turned,
 * with constraints and sizes, steps for holes, flats and slots, and beside it the solid as it came where it has more
 * than that.
 * @param file the solids as a file that the kernel reads again
 */
export function recoverPart(
  name: string,
  solids: readonly ForeignSolid[],
  file: string,
  options: Recovering = {},
): RecoveredPart {
  const found = recovered(name, solids, file, options)
  const rough = new Set([...solids.keys()].filter((i) => found.solids[i]?.isTurned !== true))
  if (rough.size === 0) return found
  // What another program rounded is turned all the same, if less exactly than is usual.
  const leniently = solids.map((s, i) => (rough.has(i) ? { ...s, uncertainty: Infinity } : s))
  const again = recovered(name, leniently, file, options, rough)
  const many = (r: RecoveredPart): number => r.solids.filter((s) => s.isTurned).length
  return many(again) > many(found) ? again : found
}

/** @param rough numbers of solids that are looked at leniently, and so kept as they came in any case */
function recovered(
  name: string,
  solids: readonly ForeignSolid[],
  file: string,
  { units, weigh, tell }: Recovering,
  rough: ReadonlySet<number> = new Set(),
): RecoveredPart {
  const { axis, start } = standOf(solids)
  const frame = frameOf(axis, start)
  const own = createPart({ name, ...(units ? { units } : {}) })
  let part: Part = { ...own, sketches: [], bodies: [] }
  const told: RecoveredSolid[] = []
  for (const [number, solid] of solids.entries()) {
    tell?.(number + 1)
    const outline = outlineOf(solid, axis)
    const pieces = outline && movedBy(outline.pieces, -start)
    const dress = { name: solid.name ?? '', colour: solid.colour ?? '' }
    const turned = pieces && withTurned(part, pieces, dress)
    const volume = turned && volumeOf(turned.part)
    const share = volume === undefined ? 0 : volume / solid.volume
    const account = turnedAs(solid, axis, outline?.pieces, share)
    const isTurned = turned !== undefined && account !== undefined
    const isWhole = account?.rest.length === 0 && Math.abs(share - 1) <= SAME_VOLUME
    const plain = account && comparedTurned(account, share, turned, solid)
    const more =
      plain && turned && !isWhole && weigh && !rough.has(number)
        ? better(rebuilt(turned.part, solid, account.rest, frame, weigh), plain)
        : undefined
    const isRebuilt = more !== undefined && isSameSolid(more.comparison, solid)
    if (isTurned) part = more?.part ?? turned.part
    const isKept = !(isWhole || isRebuilt) || rough.has(number)
    const beside = isKept && isTurned ? part.bodies.at(-1)?.id : undefined
    if (isKept) {
      const keeping = { file, number, frame, axis, start, pieces: isTurned ? pieces : undefined }
      // What came is what stands for the part; what was rebuilt is to go by until it has all of it.
      part = {
        ...part,
        bodies: part.bodies.map((b) => (b.id === beside ? toGoBy(b, dress.name) : b)),
      }
      const called = beside === undefined ? dress.name : dress.name || `as it came ${number + 1}`
      part = withKept(part, solid, keeping, { ...dress, name: called })
    }
    const comparison = more?.comparison ?? plain
    told.push({
      ...{ name: dress.name, isTurned, isKept, body: part.bodies.at(-1)?.id ?? '' },
      ...(beside === undefined ? {} : { beside }),
      ...(isTurned ? { sketch: turned.sketch } : {}),
      steps: isTurned ? [...turned.finishes, ...(more?.steps ?? [])] : [],
      ...(comparison ? { comparison } : {}),
    })
  }
  if (part.sketches.length === 0) part = withSketch(part)
  return { part, solids: told }
}

const toGoBy = (body: Body, name: string): Body => ({
  ...{ ...body, visible: false, reference: true },
  name: name === '' ? body.name : `${body.name}, rebuilt`,
})

/** How the outline alone, turned, compares with the solid. */
const comparedTurned = (
  account: Account,
  share: number,
  turned: Turned | undefined,
  solid: ForeignSolid,
): Comparison => ({
  volume: share - 1,
  area: (turned ? areaOf(turned.part) : 0) / solid.area - 1,
  ...{ distance: account.departure, surface: 1 - account.turned },
})

const areaOf = (part: Part): number => evaluate(part).bodies.at(-1)?.solid?.area ?? 0

/** What was rebuilt with steps, where that comes nearer to the solid than the outline alone. */
const better = (more: Rebuilt | undefined, plain: Comparison): Rebuilt | undefined =>
  more &&
  more.comparison.surface < plain.surface &&
  more.comparison.distance <= plain.distance * (1 + SAME_VOLUME)
    ? more
    : undefined

/** Less of a solid's surface than this is not enough to call it turned, and less of the turned one that is there. */
const LEAST_TURNED = 0.5

/**
 * How the faces of a solid stand to its half-section; undefined when it is not turned from that.
 * @param share of the solid's volume that its half-section has when it is turned
 */
function turnedAs(
  solid: ForeignSolid,
  axis: Line,
  pieces: readonly Piece[] | undefined,
  share: number,
): Account | undefined {
  if (!pieces || pieces.length === 0 || !isNearly(share)) return undefined
  const account = accountFor(solid, axis, pieces)
  const { turned, covered, hasOutside } = account
  return turned >= LEAST_TURNED && covered >= LEAST_TURNED && hasOutside ? account : undefined
}

/** All solids of a file as they are, the axis of the largest on the part's own. */
export function solidsToBring(
  solids: readonly ForeignSolid[],
  file: string,
): readonly BroughtSolid[] {
  const { axis, start } = standOf(solids)
  const frame = frameOf(axis, start)
  return solids.map((solid, number) => {
    const outline = outlineOf(solid, axis)
    const moved = outline && movedBy(outline.pieces, -start)
    const share = moved ? turnedVolume(moved) / solid.volume : 0
    const pieces = turnedAs(solid, axis, outline?.pieces, share) && moved
    return asItCame(solid, { file, number, frame, axis, start, pieces })
  })
}

/** What pieces enclose, turned fully. */
function turnedVolume(pieces: readonly Piece[]): number {
  const edges = pieces.flatMap((whole, i) =>
    simplePieces(whole).map((piece) => ({
      piece,
      name: { step: 'came', entity: `o${i}`, role: 'drawn' as const },
    })),
  )
  return solidProperties(profileOf(edges, 'came').section)?.volume ?? 0
}

/** Whether a half-section turned has about as much as the solid it is of. */
const isNearly = (share: number): boolean => share > LEAST_SHARE && share < 1 / LEAST_SHARE
