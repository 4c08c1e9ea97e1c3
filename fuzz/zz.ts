import { solve } from '@lathica/core'
import { randomFrom } from './random'
import { displaced, wellPosed } from './sketches/make'
import { residuals } from './sketches/oracle'
const [share, count, from] = [Number(process.argv[2]), Number(process.argv[3]), Number(process.argv[4] ?? 0)]
const tally: Record<string, number> = {}
let worst = 0
const t0 = process.cpuUsage().user
for (let seed = from; seed < from + count; seed++) {
  const random = randomFrom(seed)
  const made = wellPosed(random, 3 + random.below(12))
  const sketch = displaced(made, share, random)
  const c0 = performance.now()
  const s = solve(sketch, made.values)
  worst = Math.max(worst, performance.now() - c0)
  const off = Math.max(0, ...residuals(sketch, made.values, s.positions).map((r) => Math.abs(r.off)))
  const far = (at: ReadonlyMap<string, { x: number; y: number }>): number => Math.hypot(...sketch.points.flatMap((p) => [(at.get(p.id)?.x ?? 0) - p.x, (at.get(p.id)?.y ?? 0) - p.y]))
  const says: string[] = []
  if (!s.solved) says.push('unsolved')
  else { if (off > 1e-6) says.push('off'); const r = far(s.positions) / far(made.intended); if (r > 1.001) says.push(r > 1.5 ? 'muchFarther' : 'farther'); if (s.freedoms !== made.freedoms) says.push('freedoms'); if (s.disagreements.length) says.push('redundant') }
  for (const w of says) tally[w] = (tally[w] ?? 0) + 1
}
console.log(share, JSON.stringify(tally), 'of', count, 'cpu s', ((process.cpuUsage().user - t0) / 1e6).toFixed(1), 'slowest', worst.toFixed(0))
