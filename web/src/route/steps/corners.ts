import type { ChamferSet, CornerPick, FilletSet, Step } from '@lathica/core/part'
import { bodyField, type Field } from './field'

/** What is typed for a set; the function gives the step with some of the set changed. */
export type SizesOf<S> = (own: S, change: (to: Partial<S>) => Step) => readonly Field[]

/** The fields of a step on corners, set after set. */
export function fieldsOfSets<S extends FilletSet | ChamferSet>(
  { body, sets }: { readonly body: string; readonly sets: readonly S[] },
  withSets: (sets: readonly S[]) => Step,
  sizesOf: SizesOf<S>,
  another: string,
): Field[] {
  const fields = sets.flatMap((own, i): Field[] => {
    const remove = withSets(sets.filter((_, k) => k !== i))
    const change = (to: Partial<S>): Step =>
      withSets(sets.map((s, k) => (k === i ? { ...s, ...to } : s)))
    return [
      ...(sets.length > 1 ? [{ kind: 'heading' as const, label: `Set ${i + 1}`, remove }] : []),
      ...sizesOf(own, change),
      { kind: 'corners', label: 'Edges', set: i, pick: own.pick },
    ]
  })
  const [first] = sets
  if (!first) return [...fields, bodyField(body)]
  const next = { ...first, pick: { kind: 'corners' as const, corners: [] } }
  const more = { kind: 'more', label: another, step: withSets([...sets, next]) } as const
  return [...fields, more, bodyField(body)]
}

/** Which corners are meant, in a few words. */
export function cornersIn(pick: CornerPick): string {
  switch (pick.kind) {
    case 'corners':
      return pick.corners.length === 1 ? 'on 1 edge' : `on ${pick.corners.length} edges`
    case 'solid':
      return pick.edges.length === 1 ? 'on 1 edge' : `on ${pick.edges.length} edges`
    case 'inside':
      return 'on all inside edges'
    case 'outside':
      return 'on all outside edges'
    case 'step':
      return 'on all edges of a step'
  }
}
