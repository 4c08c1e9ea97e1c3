import type { Revision } from '../part'

/**
 * The revision by which a label came to say what it says: the next one where it was changed since the last release, the
 * last one where it was changed by that. Undefined for what is older.
 */
export function changeMarks(
  revisions: readonly Revision[],
): (label: { readonly id: string; readonly said: string }) => string | undefined {
  const [before, last] = revisions.length > 1 ? revisions.slice(-2) : [undefined, revisions[0]]
  if (!last) return () => undefined
  const [then, earlier] = [saidIn(last), before && saidIn(before)]
  return ({ id, said }) => {
    if (!isKept(id)) return undefined
    if (then.get(id) !== said) return nextMark(revisions)
    return earlier && earlier.get(id) !== said ? last.mark : undefined
  }
}

/** Whether a label is noted with a release: those that only name a view are not. */
export const isKept = (id: string): boolean => !/^((section|detail|item)\/|enlarged\d+$)/.test(id)

/** What a label said when the drawing was released last, and what it says now; undefined where it is not there. */
export interface LabelChange {
  readonly before: string | undefined
  readonly now: string | undefined
}

/** What is not the same as when the drawing was released last; nothing where it never was. */
export function changesSince(
  revisions: readonly Revision[],
  labels: ReadonlyMap<string, { readonly said: string }>,
): LabelChange[] {
  const last = revisions.at(-1)
  if (!last) return []
  const then = saidIn(last)
  const changed = [...labels].flatMap(([id, { said }]): LabelChange[] => {
    const before = then.get(id)
    return !isKept(id) || before === said ? [] : [{ before, now: said }]
  })
  const gone = [...then].flatMap(([id, before]): LabelChange[] =>
    labels.has(id) ? [] : [{ before, now: undefined }],
  )
  return [...changed, ...gone]
}

const saidIn = ({ labels }: Revision): ReadonlyMap<string, string> =>
  new Map(labels.map((l) => [l.id, l.said]))

/**
 * The mark of the revision that comes next: A, B … Z, AA. Letters that look like figures are left out.
 * @param taken marks that others have
 */
export function nextMark(revisions: readonly Revision[], taken: readonly string[] = []): string {
  const used = new Set([...revisions.map((r) => r.mark), ...taken])
  for (let n = revisions.length; ; n++) {
    const last = MARKS[n % MARKS.length] ?? 'A'
    const mark = n < MARKS.length ? last : `${MARKS[Math.floor(n / MARKS.length) - 1] ?? ''}${last}`
    if (!used.has(mark)) return mark
  }
}
const MARKS = [...'ABCDEFGHJKLMNPRSTUVWYZ']
