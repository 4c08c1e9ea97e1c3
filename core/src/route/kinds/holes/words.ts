import { inFrame, place, type Frame } from '../../../geometry'
import type { HolesStep } from '../../../part'
import type { SizeAt, ThreadCircle } from '../../state'
import type { StepContext } from '../../steps/context'
import { sizesAt, tell, times } from '../../steps/common'

/** Where one hole is: its frame looks in, and it goes so deep. */
export interface Site {
  readonly number: number
  readonly frame: Frame
  /** To the end of the full diameter; a blind one has a tip beyond it. */
  readonly depth: number
  readonly blind: boolean
  /** How far the tool reaches back out, so that it clears what stands beside its mouth. */
  readonly back: number
}

/** What a hole opens with. */
export interface Head {
  readonly kind: Exclude<HolesStep['head'], 'none'>
  readonly diameter: number
  /** Of a counterbore or spot face; of a countersink what its angle makes. */
  readonly depth: number
}

/** What drawings say of holes: how many, how wide or which thread (ISO 6410-1), head, pitch circle. */
export function holeSizes(
  step: HolesStep,
  context: StepContext,
  sites: readonly Site[],
  diameter: number,
  head: Head | undefined,
): SizeAt[] {
  const [first] = sites
  if (!first) return []
  const mm = (length: number): string => tell(context, length)
  const thread = step.thread.trim()
  const deep = step.reach === 'depth' ? `, ${mm(first.depth)} deep` : ''
  const sink = step.headAngle.trim().replace(/\s*(°|deg)$/, '')
  const heads = head && {
    counterbore: `counterbore ⌀${mm(head.diameter)} × ${mm(head.depth)}`,
    spotface: `spot face ⌀${mm(head.diameter)}`,
    countersink: `countersink ⌀${mm(head.diameter)} × ${sink}°`,
  }
  const { x, y } = first.frame.at
  const inCircle = step.way === 'end' && step.layout === 'circle'
  return sizesAt(step.body, first.frame.at, [
    `${times(sites.length)}${thread === '' ? `⌀${mm(diameter)}` : thread}${deep}`,
    head && heads ? heads[head.kind] : '',
    inCircle ? `on a circle of ⌀${mm(2 * Math.hypot(x, y))}` : '',
  ])
}

/** The circles of threads whose diameter their name tells: metric ones, trapezoidal ones. */
export function holeThreads(
  step: HolesStep,
  sites: readonly Site[],
  head: Head | undefined,
): ThreadCircle[] {
  const nominal = nominalDiameter(step.thread)
  return nominal === undefined
    ? []
    : sites.map(({ frame }) => ({
        ...{ body: step.body, radius: nominal / 2 },
        // Below a head the thread begins at its seat.
        frame: { ...frame, at: inFrame(frame, place(0, 0, head?.depth ?? 0)) },
        through: step.reach === 'through',
      }))
}

/**
 * The nominal diameter in mm that a thread's name tells: metric (ISO 261) and trapezoidal ones
 * (ISO 2904), such as M8, M8 × 1 or Tr 16 × 4. Names that tell no diameter have none.
 */
export function nominalDiameter(thread: string): number | undefined {
  const [, size] = /^(?:M|Tr)\s*(\d+(?:[.,]\d+)?)(?![\d/.,])/i.exec(thread.trim()) ?? []
  return size === undefined ? undefined : Number(size.replace(',', '.'))
}
