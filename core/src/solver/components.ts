import type { Equation } from '../equations'
import type { System } from './system'

/** Equations that hang together by the unknowns they read. */
export interface Component {
  readonly equations: readonly Equation[]
  readonly unknowns: readonly number[]
}

/** The unknowns each equation reads, whether or not its value changes with them where the points stand. */
export function incidenceOf(system: System, equations: readonly Equation[]): number[][] {
  return equations.map((equation) => {
    const read = new Set<number>()
    for (const c of equation.coordinates) {
      const u = system.unknownOf[c] ?? -1
      if (u >= 0) read.add(u)
    }
    return [...read]
  })
}

/** Puts members together by what they share; returns the one that stands for a member's set. */
function sets(count: number): {
  readonly find: (u: number) => number
  readonly join: (u: number, v: number) => void
} {
  const parent = Int32Array.from({ length: count }, (_, i) => i)
  const find = (u: number): number => {
    let root = u
    while (parent[root] !== root) root = parent[root] ?? root
    while (parent[u] !== root) {
      const next = parent[u] ?? root
      parent[u] = root
      u = next
    }
    return root
  }
  return { find, join: (u, v) => void (parent[find(u)] = find(v)) }
}

/** The connected components of a system; equations that read no unknown are in none. */
export function componentsOf(system: System): Component[] {
  const { find, join } = sets(system.unknowns)
  const incidence = incidenceOf(system, system.equations)
  for (const [first, ...rest] of incidence) {
    if (first !== undefined) for (const u of rest) join(u, first)
  }
  const found = new Map<number, { equations: Equation[]; unknowns: number[] }>()
  system.equations.forEach((equation, e) => {
    const first = incidence[e]?.[0]
    if (first === undefined) return
    const root = find(first)
    const component = found.get(root) ?? { equations: [], unknowns: [] }
    component.equations.push(equation)
    found.set(root, component)
  })
  for (let u = 0; u < system.unknowns; u++) found.get(find(u))?.unknowns.push(u)
  return [...found.values()]
}

/** Ids of the constraints and sizes that hang together, by the unknowns all their equations read. */
export function ownersTogether(system: System): ReadonlySet<string>[] {
  const { find, join } = sets(system.unknowns)
  const readBy = new Map<string, number>()
  const incidence = incidenceOf(system, system.equations)
  system.equations.forEach(({ owner }, e) => {
    const [first, ...rest] = incidence[e] ?? []
    if (first === undefined) return
    for (const u of rest) join(u, first)
    if (owner === '') return
    const before = readBy.get(owner)
    if (before === undefined) readBy.set(owner, first)
    else join(first, before)
  })
  const together = new Map<number, Set<string>>()
  readBy.forEach((u, owner) => {
    const root = find(u)
    const owners = together.get(root)
    if (owners) owners.add(owner)
    else together.set(root, new Set([owner]))
  })
  return [...together.values()]
}
