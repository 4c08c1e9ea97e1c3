/**
 * Coordinates tied by fixed differences: value[b] − value[a] = d. Such ties need no equations; the
 * coordinates they join share one unknown. A union–find with offsets holds the classes, and a
 * forest of the ties that made them explains each class: a tie inside a class closes a circle, and
 * the ties along that circle are the smallest set that says the same or disagrees.
 */
export interface LinearGraph {
  /**
   * Ties b to a at a difference in mm.
   * @param support coordinates of one class on whose being tied this tie rests, if it does
   * @returns undefined when the tie was news, or the misfit in mm and the ties of the circle
   */
  tie(
    a: number,
    b: number,
    difference: number,
    reason: string,
    support?: readonly [number, number],
  ): Circle | undefined
  /** The representative of a coordinate's class. */
  rootOf(node: number): number
  /** The coordinate's value less its root's, in mm. */
  offsetOf(node: number): number
  /** The ties that hold two coordinates of one class together. */
  reasonsBetween(a: number, b: number): string[]
}

export interface Circle {
  readonly misfit: number
  readonly reasons: readonly string[]
}

/** A tie as seen from one of its ends. Forests only grow, so a support's reasons can be read later. */
interface ForestEdge {
  readonly to: number
  readonly reason: string
  readonly support: readonly [number, number] | undefined
}

export function createLinearGraph(size: number): LinearGraph {
  const parent = Int32Array.from({ length: size }, (_, i) => i)
  const toParent = new Float64Array(size)
  const weight = new Int32Array(size).fill(1)
  const forest: ForestEdge[][] = Array.from({ length: size }, () => [])

  const at = (array: Int32Array | Float64Array, i: number): number => array[i] ?? 0

  // Two passes with path compression: find the root and the way to it, then point all at the root.
  const rootOf = (node: number): number => {
    let root = node
    let way = 0
    while (at(parent, root) !== root) {
      way += at(toParent, root)
      root = at(parent, root)
    }
    let here = node
    while (at(parent, here) !== root && here !== root) {
      const next = at(parent, here)
      const step = at(toParent, here)
      parent[here] = root
      toParent[here] = way
      way -= step
      here = next
    }
    return root
  }

  const offsetOf = (node: number): number => (rootOf(node) === node ? 0 : at(toParent, node))

  const reasonsBetween = (a: number, b: number): string[] => {
    const reasons = new Set<string>()
    collectReasons(a, b, reasons)
    return [...reasons]
  }

  const collectReasons = (a: number, b: number, reasons: Set<string>): void => {
    const cameBy = new Map<number, { readonly from: number; readonly edge: ForestEdge }>()
    const queue = [a]
    for (const node of queue) {
      if (node === b) break
      for (const edge of forest[node] ?? []) {
        if (edge.to === a || cameBy.has(edge.to)) continue
        cameBy.set(edge.to, { from: node, edge })
        queue.push(edge.to)
      }
    }
    for (let node = b; node !== a;) {
      const step = cameBy.get(node)
      if (!step) return
      addReasons(step.edge, reasons)
      node = step.from
    }
  }

  const addReasons = (edge: Omit<ForestEdge, 'to'>, reasons: Set<string>): void => {
    if (edge.reason !== '') reasons.add(edge.reason)
    if (edge.support) collectReasons(...edge.support, reasons)
  }

  const tie: LinearGraph['tie'] = (a, b, difference, reason, support) => {
    const ra = rootOf(a)
    const rb = rootOf(b)
    const held = offsetOf(b) - offsetOf(a)
    if (ra === rb) {
      const circle = new Set<string>()
      addReasons({ reason, support }, circle)
      collectReasons(a, b, circle)
      return { misfit: Math.abs(held - difference), reasons: [...circle] }
    }
    forest[a]?.push({ to: b, reason, support })
    forest[b]?.push({ to: a, reason, support })
    const rootGap = difference - held
    if (at(weight, ra) >= at(weight, rb)) {
      parent[rb] = ra
      toParent[rb] = rootGap
      weight[ra] = at(weight, ra) + at(weight, rb)
    } else {
      parent[ra] = rb
      toParent[ra] = -rootGap
      weight[rb] = at(weight, ra) + at(weight, rb)
    }
    return undefined
  }

  return { tie, rootOf, offsetOf, reasonsBetween }
}
