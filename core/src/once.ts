/*
 * Parts, sketches and sections are never changed once made, so that what is worked out of one holds for good. These
 * are how the model remembers it: the function made is the only writer and the only reader, and what it gives is
 * the same as if nothing were remembered.
 */

/** A function of an object that is worked out once for each object. */
export function once<K extends object, V>(make: (of: K) => V): (of: K) => V {
  const known = new WeakMap<K, V>()
  return (of) => {
    const before = known.get(of)
    if (before !== undefined || known.has(of)) return before as V
    const value = make(of)
    known.set(of, value)
    return value
  }
}

/**
 * A function of an object and one thing more, of which the last answer for each object is kept: for what is asked
 * with the same again and again.
 */
export function lastFor<K extends object, A, V>(make: (of: K, and: A) => V): (of: K, and: A) => V {
  const known = new WeakMap<K, { readonly and: A; readonly value: V }>()
  return (of, and) => {
    const before = known.get(of)
    if (before && Object.is(before.and, and)) return before.value
    const value = make(of, and)
    known.set(of, { and, value })
    return value
  }
}

/** So many answers are kept for one object by {@link fewFor}: what lies on either side of a curve, before and after. */
const FEW = 4

/** A function of an object and something more, of which the last few answers for each object are kept. */
export function fewFor<K extends object, A, V>(
  isSame: (one: A, other: A) => boolean,
  make: (of: K, and: A) => V,
): (of: K, and: A) => V {
  const known = new WeakMap<K, { readonly and: A; readonly value: V }[]>()
  return (of, and) => {
    const answers = known.get(of) ?? []
    const before = answers.find((a) => isSame(a.and, and))
    if (before) return before.value
    const value = make(of, and)
    if (answers.length === 0) known.set(of, answers)
    else if (answers.length === FEW) answers.shift()
    answers.push({ and, value })
    return value
  }
}

/** Lists by their kind are kept as they were last; of so many kinds. */
const KINDS = 16

/**
 * A function that gives back what a list of a kind held the last time, place by place, where it is the same still: what
 * is remembered of those objects holds on.
 */
export function sameAsLast<T>(
  isSame: (one: T, other: T) => boolean,
): (kind: string, list: readonly T[]) => readonly T[] {
  const last = new Map<string, readonly T[]>()
  return (kind, list) => {
    const before = last.get(kind)
    const kept = before
      ? list.map((item, i) => {
          const old = before[i]
          return old !== undefined && isSame(old, item) ? old : item
        })
      : list
    last.delete(kind)
    last.set(kind, kept)
    const [oldest] = last.keys()
    if (last.size > KINDS && oldest !== undefined) last.delete(oldest)
    return kept
  }
}
