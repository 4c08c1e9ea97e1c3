/** The board's colours, read from the style sheet so that both themes have one source. */
export interface Colours {
  readonly paper: string
  readonly ink: string
  readonly inkSoft: string
  readonly pencil: string
  readonly accent: string
  readonly conflict: string
  readonly halo: string
  readonly hatch: string
  readonly material: string
  readonly mirror: string
  readonly rule: string
}

export function readColours(): Colours {
  const style = getComputedStyle(document.documentElement)
  const token = (name: string): string => style.getPropertyValue(name).trim()
  return {
    paper: token('--paper'),
    ink: token('--ink'),
    inkSoft: token('--ink-soft'),
    pencil: token('--pencil'),
    accent: token('--accent'),
    conflict: token('--conflict'),
    halo: token('--halo'),
    hatch: token('--hatch'),
    material: token('--material'),
    mirror: token('--mirror'),
    rule: token('--rule-strong'),
  }
}
