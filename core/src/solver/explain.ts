import type { Attempt } from './attempt'
import { ownersTogether } from './components'
import { analyseRank, type SparseRow } from './rank'
import { restrictedTo } from './restricted'
import { rowsAt } from './witness'
import { unmergedSystem, writeCoordinates, type System } from './system'
import { gradientFor, type Equation } from '../equations'
import type { Sketch } from '../sketch'

/** Constraints and sizes that say the same, or that cannot all hold. */
export interface Disagreement {
  readonly kind: 'redundant' | 'conflict'
  /** Ids of constraints and sizes: a smallest such set. */
  readonly members: readonly string[]
  /** Those of a redundant set that could go without anything getting looser. */
  readonly idle: readonly string[]
}

/** Tells of parts of a sketch whether they can be solved by themselves. */
export interface Trial {
  readonly solves: (part: Sketch, thoroughly: boolean) => boolean
  /** Whether no more can be tried: then every part counts as one that solves. */
  readonly isOver: () => boolean
}

/**
 * Finds what says the same twice, and what cannot hold whatever its values may be.
 *
 * Every equation, ties too, is a row of derivatives at a witness. A row that follows from others does so in one
 * way from rows that are independent of one another: these are its circuit, and each of
 * them is needed. Where the equations of a circuit cannot be solved by themselves they are a conflict; where
 * they can, they say the same.
 * @param coordinates a witness of the system
 */
export function fromRows(
  sketch: Sketch,
  { solved, system }: Attempt,
  coordinates: Float64Array,
  trial: Trial,
): Disagreement[] {
  const whole = unmergedSystem(system)
  const matrix = rowsOf(whole, coordinates)
  const found = new Map<string, Disagreement>()
  const tell = (d: Disagreement): void => {
    const key = [...d.members].sort().join(' ')
    if (!found.has(key)) found.set(key, d)
  }
  const fails = failing(sketch, trial)
  const { dependent, independent } = analyseRank(matrix.rows, whole.unknowns)
  for (const { row, from } of dependent) {
    const circuit = new Set([row, ...from].map((i) => matrix.owners[i] ?? ''))
    circuit.delete('')
    const bare = smallestDependent(matrix, [...circuit], whole.unknowns)
    const resting = [row, ...from].flatMap((i) => whole.equations[i] ?? [])
    const members = [...new Set([...bare, ...supportsOf(system, resting, coordinates)])]
    const contrary = solved ? undefined : [bare, members].find((ids) => fails(new Set(ids)))
    if (contrary) {
      tell({ kind: 'conflict', members: withoutNeedless(contrary, fails), idle: [] })
      continue
    }
    // What was not tried may as well be a conflict.
    if (!solved && trial.isOver()) break
    const idle = members.filter((m) => isIdle(matrix, m, independent.length, whole.unknowns))
    if (idle.length > 0) tell({ kind: 'redundant', members, idle })
  }
  return [...found.values()]
}

/**
 * A conflict of values, such as sides that cannot close: what pulls against one another where the search ended,
 * narrowed by leaving out what is not needed for it.
 */
export function fromValues(
  sketch: Sketch,
  { system, settled, failing: off }: Attempt,
  trial: Trial,
): Disagreement {
  const fails = failing(sketch, trial)
  const tense = new Set(inTension(system, settled.unknowns, settled.off))
  const all = new Set([...sketch.constraints, ...sketch.sizes].map((item) => item.id))
  const around = componentOf(unmergedSystem(system), off) ?? all
  const pool = tense.size > 1 && fails(tense) ? tense : around
  // A search may miss a place, so what was found is looked through once more.
  const members = withoutNeedless(smallestFailing([...pool], fails), fails)
  return { kind: 'conflict', members, idle: [] }
}

/** Whether a set of owners cannot hold by itself; a first look is quick, and may miss a place where it does. */
type Fails = (ids: ReadonlySet<string>, atFirstLook?: boolean) => boolean

const failing =
  (sketch: Sketch, { solves }: Trial): Fails =>
  (ids, atFirstLook = false) =>
    !solves(restrictedTo(sketch, ids), !atFirstLook && ids.size <= FEW)

/** Sets of more than this are not searched for members that inequalities make needless. */
const FEW = 40

/** Members without which a set fails as well are left out: at a first look, or with care where that misled. */
function withoutNeedless(members: readonly string[], fails: Fails): readonly string[] {
  if (members.length > FEW) return members
  const least = (atFirstLook: boolean): Set<string> => {
    const left = new Set(members)
    for (const m of members) {
      left.delete(m)
      if (left.size === 0 || !fails(left, atFirstLook)) left.add(m)
    }
    return left
  }
  const quick = least(true)
  return [...(quick.size === members.length || fails(quick) ? quick : least(false))]
}

/**
 * Ties on which the derivatives of equations rest: a length reads one coordinate only because its line
 * is axial, and would read both without that.
 */
function supportsOf(
  system: System,
  equations: readonly Equation[],
  coordinates: Float64Array,
): string[] {
  const gradient = gradientFor(equations)
  const reasons = new Set<string>()
  for (const equation of equations) {
    equation.evaluate(coordinates, gradient)
    const read = [...equation.coordinates]
    const size = Math.max(...read.map((_, k) => Math.abs(gradient[k] ?? 0)))
    read.forEach((c, k) => {
      if (Math.abs(gradient[k] ?? 0) > 1e-9 * size) return
      const like = read.find(
        (d) => d !== c && d % 2 === c % 2 && system.unknownOf[d] === system.unknownOf[c],
      )
      if (like !== undefined) for (const r of system.reasonsBetween(c, like)) reasons.add(r)
    })
  }
  reasons.delete('')
  return [...reasons]
}

/** Every equation's row, and whose it is. */
interface Matrix {
  readonly rows: readonly SparseRow[]
  readonly owners: readonly string[]
}

function rowsOf(whole: System, coordinates: Float64Array): Matrix {
  const { equations } = whole
  return {
    rows: rowsAt((c) => whole.unknownOf[c] ?? -1, equations, coordinates),
    owners: equations.map((e) => e.owner),
  }
}

/** Rows of some owners, and of what arcs and circles are by nature. */
const rowsFor = ({ rows, owners }: Matrix, keep: (owner: string) => boolean): SparseRow[] =>
  rows.filter((_, i) => owners[i] === '' || keep(owners[i] ?? ''))

/**
 * Those of some owners whose rows depend on one another, as few as may be. An owner of several rows may
 * bring other dependences with it than the one looked for; then they are left out one by one.
 */
function smallestDependent(matrix: Matrix, circuit: readonly string[], width: number): string[] {
  const dependences = (ids: ReadonlySet<string>): number =>
    analyseRank(
      rowsFor(matrix, (o) => ids.has(o)),
      width,
    ).dependent.length
  let members = new Set(circuit)
  if (dependences(members) <= 1) return [...members]
  for (const m of circuit) {
    const rest = new Set(members)
    rest.delete(m)
    if (dependences(rest) > 0) members = rest
  }
  return [...members]
}

/** True when without some owner's rows the rank of all is what it was. */
const isIdle = (matrix: Matrix, owner: string, rank: number, width: number): boolean =>
  analyseRank(
    rowsFor(matrix, (o) => o !== owner),
    width,
  ).independent.length === rank

/**
 * Owners of the equations that pull against one another where the sum of their squares is least, and
 * of the ties that merge what they read: a local reason for not holding.
 */
function inTension(system: System, unknowns: Float64Array, off: readonly Equation[]): string[] {
  const coordinates = new Float64Array(system.start.length)
  writeCoordinates(system, unknowns, coordinates)
  const gradient = gradientFor(system.equations)
  const size = (e: Equation): number => Math.abs(e.evaluate(coordinates, gradient))
  const most = Math.max(...off.map(size))
  const pulling = system.equations.filter((e) => size(e) > 1e-5 * most)
  const owners = new Set(pulling.map((e) => e.owner))
  const firstOf = new Map<number, number>([[-1, system.start.length - 2]])
  for (const { coordinates: read } of pulling) {
    for (const c of read) {
      const u = system.unknownOf[c] ?? -1
      const first = firstOf.get(u)
      if (first === undefined) firstOf.set(u, c)
      else for (const r of system.reasonsBetween(first, c)) owners.add(r)
    }
  }
  owners.delete('')
  return [...owners]
}

/** All owners whose equations hang together with those of some. */
function componentOf(whole: System, ids: readonly string[]): ReadonlySet<string> | undefined {
  const groups = ownersTogether(whole).filter((group) => ids.some((id) => group.has(id)))
  return groups.length > 0 ? new Set(groups.flatMap((group) => [...group])) : undefined
}

/** A smallest set that still fails: dropping any one member resolves it (QuickXplain; Junker, AAAI 2004). */
function smallestFailing(suspects: readonly string[], fails: Fails): readonly string[] {
  if (suspects.length < 2 || !fails(new Set(suspects))) return suspects
  return quickXplain([], suspects, false, (ids) => !fails(new Set(ids)))
}

function quickXplain(
  background: readonly string[],
  candidates: readonly string[],
  grown: boolean,
  holds: (ids: readonly string[]) => boolean,
): readonly string[] {
  if (grown && !holds(background)) return []
  if (candidates.length <= 1) return candidates
  const middle = Math.floor(candidates.length / 2)
  const first = candidates.slice(0, middle)
  const second = candidates.slice(middle)
  const inSecond = quickXplain([...background, ...first], second, true, holds)
  const inFirst = quickXplain([...background, ...inSecond], first, inSecond.length > 0, holds)
  return [...inFirst, ...inSecond]
}
