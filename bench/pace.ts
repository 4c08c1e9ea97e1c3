/** What the fixed work below takes on the machine on which the goals were set, on a usual day, in ms. */
const USUAL = 4.8

/** How often the fixed work is done for one reading. */
const LOOPS = 25

/**
 * How slow this process is now: times as slow as where the goals were set. The work is fixed: square roots on an
 * array, objects made, put into a map and let go. A goal in milliseconds means as many at the usual pace.
 */
export function pace(): number {
  const times = Array.from({ length: LOOPS }, timeOfFixedWork).sort((a, b) => a - b)
  return (times[Math.floor(LOOPS / 2)] ?? USUAL) / USUAL
}

function timeOfFixedWork(): number {
  const begun = performance.now()
  let sum = 0
  const field = new Float64Array(4096)
  for (let round = 0; round < 60; round++) {
    for (let i = 0; i < field.length; i++) {
      field[i] = Math.sqrt((field[i] ?? 0) * 0.9 + i + round)
      sum += field[i] ?? 0
    }
  }
  for (let round = 0; round < 40; round++) {
    const list = Array.from({ length: 500 }, (_, i) => ({ key: i, at: { x: i * sum, y: round } }))
    const found = new Map(list.map((p) => [p.key, p.at]))
    for (const p of list) sum += (found.get(p.key)?.x ?? 0) * 1e-30
  }
  if (Number.isNaN(sum)) throw new Error('the fixed work went wrong')
  return performance.now() - begun
}
