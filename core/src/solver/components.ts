import type { Equation } from './equations'
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

/** The connected components of a system; equations that read no unknown are in none. */
export function componentsOf(system: System): Component[] {
  const parent = Int32Array.from({ length: system.unknowns }, (_, i) => i)
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
  const incidence = incidenceOf(system, system.equations)
  for (const [first, ...rest] of incidence) {
    if (first !== undefined) for (const u of rest) parent[find(u)] = find(first)
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
