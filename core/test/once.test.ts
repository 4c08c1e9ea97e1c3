import { expect, test } from 'vitest'
import { lastFor, once } from '../src/once'

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
