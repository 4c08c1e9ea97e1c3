/*
 * Parts, sketches and sections are never changed once made, so that what is worked out of one holds for good. These
 * two are how the model remembers it: the function made is the only writer and the only reader, and what it gives is
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
