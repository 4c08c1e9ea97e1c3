/** The unknowns an equation reads, for each equation. */
export type Incidence = readonly (readonly number[])[]

/** A piece of the system that can be solved once those before it are. */
export interface Block {
  readonly equations: readonly number[]
  readonly unknowns: readonly number[]
  /** True when the block has as many equations as unknowns: then nothing in it can move. */
  readonly determined: boolean
}

/**
 * Splits equations into blocks to be solved one after another: the strongly connected blocks of the
 * well-determined part, in order, then the connected pieces of the part with freedoms (Dulmage &
 * Mendelsohn 1958; Pothen & Fan 1990). It uses structure only, no numbers, so it may be wrong about
 * what is determined: what it orders is to be judged by residuals afterwards.
 * @param incidence unknowns of each equation; an equation for which no unknown is left is in no block
 * @param width number of unknowns
 * @param hints for each equation an unknown to match it with first, if it reads it
 */
export function decompose(
  incidence: Incidence,
  width: number,
  hints: readonly number[] = [],
): Block[] {
  const matching = maximumMatching(incidence, width, hints)
  const matched = incidence.map((columns, e) => ((matching.ofEquation[e] ?? -1) < 0 ? [] : columns))
  const free = reachFromUnmatched(matched, matching)
  return [
    ...determinedBlocks(matched, matching, free),
    ...freeBlocks(matched, width, matching, free),
  ]
}

interface Matching {
  readonly ofEquation: Int32Array
  readonly ofUnknown: Int32Array
}

/** Augmenting paths by an explicit stack, so that long chains do not exhaust the call stack. */
function maximumMatching(incidence: Incidence, width: number, hints: readonly number[]): Matching {
  const ofEquation = new Int32Array(incidence.length).fill(-1)
  const ofUnknown = new Int32Array(width).fill(-1)
  hints.forEach((u, e) => {
    if (!incidence[e]?.includes(u) || (ofUnknown[u] ?? -1) >= 0) return
    ofEquation[e] = u
    ofUnknown[u] = e
  })
  for (let root = 0; root < incidence.length; root++) {
    if ((ofEquation[root] ?? -1) >= 0) continue
    const seen = new Set<number>()
    const path: { equation: number; next: number }[] = [{ equation: root, next: 0 }]
    while (path.length > 0) {
      const top = path[path.length - 1]
      if (!top) break
      const unknowns = incidence[top.equation] ?? []
      const open = unknowns.find((u) => (ofUnknown[u] ?? -1) < 0)
      if (open !== undefined) {
        // Shift the matching along the path, the freed unknown going to the equation before.
        let freed = open
        for (let step = path.pop(); step; step = path.pop()) {
          const before = ofEquation[step.equation] ?? -1
          ofEquation[step.equation] = freed
          ofUnknown[freed] = step.equation
          freed = before
        }
        break
      }
      const u = unknowns[top.next++]
      if (u === undefined) path.pop()
      else if (!seen.has(u)) {
        seen.add(u)
        path.push({ equation: ofUnknown[u] ?? 0, next: 0 })
      }
    }
  }
  return { ofEquation, ofUnknown }
}

/** Equations reached from unmatched unknowns by alternating paths: those that leave freedoms. */
function reachFromUnmatched(incidence: Incidence, matching: Matching): ReadonlySet<number> {
  const readers: number[][] = Array.from(matching.ofUnknown, () => [])
  incidence.forEach((unknowns, e) => unknowns.forEach((u) => readers[u]?.push(e)))
  const reached = new Set<number>()
  const queue = [...matching.ofUnknown.keys()].filter((u) => (matching.ofUnknown[u] ?? -1) < 0)
  for (let u = queue.pop(); u !== undefined; u = queue.pop()) {
    for (const e of readers[u] ?? []) {
      if (reached.has(e)) continue
      reached.add(e)
      queue.push(matching.ofEquation[e] ?? 0)
    }
  }
  return reached
}

/** Strongly connected blocks by Tarjan's algorithm, without recursion; dependencies come first. */
function determinedBlocks(
  incidence: Incidence,
  matching: Matching,
  free: ReadonlySet<number>,
): Block[] {
  const order = new Int32Array(incidence.length).fill(-1)
  const low = new Int32Array(incidence.length)
  const onStack = new Set<number>()
  const stack: number[] = []
  const blocks: Block[] = []
  let counter = 0
  const enter = (e: number): { equation: number; next: number } => {
    order[e] = low[e] = counter++
    stack.push(e)
    onStack.add(e)
    return { equation: e, next: 0 }
  }
  for (let root = 0; root < incidence.length; root++) {
    if (free.has(root) || (order[root] ?? -1) >= 0) continue
    if ((matching.ofEquation[root] ?? -1) < 0) continue
    const path = [enter(root)]
    while (path.length > 0) {
      const top = path[path.length - 1]
      if (!top) break
      const e = top.equation
      const u = (incidence[e] ?? [])[top.next++]
      if (u !== undefined) {
        const needed = matching.ofUnknown[u] ?? -1
        if (needed < 0 || needed === e || free.has(needed)) continue
        if ((order[needed] ?? -1) < 0) path.push(enter(needed))
        else if (onStack.has(needed)) low[e] = Math.min(low[e] ?? 0, order[needed] ?? 0)
        continue
      }
      path.pop()
      const parent = path[path.length - 1]?.equation
      if (parent !== undefined) low[parent] = Math.min(low[parent] ?? 0, low[e] ?? 0)
      if (low[e] !== order[e]) continue
      const equations = stack.splice(stack.indexOf(e))
      equations.forEach((member) => onStack.delete(member))
      const unknowns = equations.map((member) => matching.ofEquation[member] ?? 0)
      blocks.push({ equations, unknowns, determined: true })
    }
  }
  return blocks
}

/** Connected pieces of what has freedoms; unknowns no equation reads are pieces of their own. */
function freeBlocks(
  incidence: Incidence,
  width: number,
  matching: Matching,
  free: ReadonlySet<number>,
): Block[] {
  const parent = Int32Array.from({ length: width }, (_, i) => i)
  const find = (u: number): number => {
    let root = u
    while (parent[root] !== root) root = parent[root] ?? root
    parent[u] = root
    return root
  }
  const isFree = (u: number): boolean => {
    const e = matching.ofUnknown[u] ?? -1
    return e < 0 || free.has(e)
  }
  for (const e of free) {
    const [first, ...rest] = (incidence[e] ?? []).filter(isFree)
    if (first !== undefined) rest.forEach((u) => (parent[find(u)] = find(first)))
  }
  const pieces = new Map<number, { equations: number[]; unknowns: number[] }>()
  for (let u = 0; u < width; u++) {
    if (!isFree(u)) continue
    const root = find(u)
    const piece = pieces.get(root) ?? { equations: [], unknowns: [] }
    piece.unknowns.push(u)
    pieces.set(root, piece)
  }
  for (const e of free) {
    const first = (incidence[e] ?? []).find(isFree)
    if (first !== undefined) pieces.get(find(first))?.equations.push(e)
  }
  return [...pieces.values()].map((piece) => ({ ...piece, determined: false }))
}
