import { expect, test } from 'vitest'
import { fewFor, lastFor, once, sameAsLast } from '../src/once'

test('what is worked out of an object is worked out once, undefined too', () => {
  let runs = 0
  const of = once((o: { readonly n?: number }) => {
    runs++
    return o.n
  })
  const [one, none] = [{ n: 1 }, {}]
  expect([of(one), of(none), of(one), of(none), of({ n: 1 })]).toEqual([
    1,
    undefined,
    1,
    undefined,
    1,
  ])
  expect(runs).toBe(3)
})

test('of what depends on one thing more the last answer is kept', () => {
  let runs = 0
  const of = lastFor((o: { readonly n: number }, by: number) => {
    runs++
    return o.n * by
  })
  const [two, three] = [{ n: 2 }, { n: 3 }]
  expect([of(two, 5), of(three, 5), of(two, 5), of(two, 6), of(two, 5), of(two, NaN)]).toEqual([
    10,
    15,
    10,
    12,
    10,
    NaN,
  ])
  expect(runs).toBe(5)
  expect(of(two, NaN)).toBeNaN()
  expect(runs).toBe(5)
})

test('of what is asked of an object with several things by turns the last few answers are kept', () => {
  let runs = 0
  const of = fewFor(
    (a: { by: number }, b: { by: number }) => a.by === b.by,
    (o: { readonly n: number }, { by }) => {
      runs++
      return o.n * by
    },
  )
  const two = { n: 2 }
  const ask = (...list: number[]): number[] => list.map((by) => of(two, { by }))
  expect(ask(1, -1, 1, -1, 3, 4)).toEqual([2, -2, 2, -2, 6, 8])
  expect(runs).toBe(4)
  // The oldest goes for a fifth.
  expect(ask(5, 4, 3, -1, 1)).toEqual([10, 8, 6, -2, 2])
  expect(runs).toBe(6)
  expect(of({ n: 3 }, { by: 4 })).toBe(12)
})

test('what of a list is as it was the last time is the same object', () => {
  const kept = sameAsLast((a: { n: number }, b: { n: number }) => a.n === b.n)
  const list = (...ns: number[]): { n: number }[] => ns.map((n) => ({ n }))
  const first = kept('a', list(1, 2, 3))
  const second = kept('a', list(1, 7, 3))
  expect(second.map((o) => o.n)).toEqual([1, 7, 3])
  expect(second.map((o, i) => o === first[i])).toEqual([true, false, true])
  const longer = kept('a', list(1, 7, 3, 4))
  expect(longer.map((o) => o.n)).toEqual([1, 7, 3, 4])
  expect(longer[1]).toBe(second[1])
  // Of another kind nothing is shared, and kinds not asked for in a while are forgotten.
  expect(kept('b', list(1))[0]).not.toBe(first[0])
  for (let i = 0; i < 16; i++) kept(`c${i}`, list(i))
  expect(kept('a', list(1))[0]).not.toBe(first[0])
})
