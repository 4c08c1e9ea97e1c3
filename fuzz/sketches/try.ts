import { solve } from '@lathica/core'
import { randomFrom } from '../random'
import { displaced, wellPosed } from './make'
import { residuals } from './oracle'
const [share, count, from] = [
  Number(process.argv[2] ?? 0.1),
  Number(process.argv[3] ?? 500),
  Number(process.argv[4] ?? 0),
]
const show = process.argv[5]
const tally: Record<string, number> = {}
const t0 = process.cpuUsage().user
let worst = 0
for (let seed = from; seed < from + count; seed++) {
  const random = randomFrom(seed)
  const made = wellPosed(random, 3 + random.below(12))
  const sketch = displaced(made, share, random)
  const c0 = performance.now()
  let s: ReturnType<typeof solve>
  try {
    s = solve(sketch, made.values)
  } catch (e) {
    tally['threw'] = (tally['threw'] ?? 0) + 1
    console.log(seed, String(e))
    continue
  }
  const dt = performance.now() - c0
  if (dt > worst) {
    worst = dt
    if (show === 'slow') console.log(seed, dt.toFixed(0), 'ms')
  }
  const off = Math.max(
    0,
    ...residuals(sketch, made.values, s.positions).map((r) => Math.abs(r.off)),
  )
  const far = (at: ReadonlyMap<string, { x: number; y: number }>): number =>
    Math.hypot(
      ...sketch.points.flatMap((p) => [(at.get(p.id)?.x ?? 0) - p.x, (at.get(p.id)?.y ?? 0) - p.y]),
    )
  const says: string[] = []
  if (!s.solved) says.push('unsolved')
  else if (off > 1e-6) says.push('off')
  else if (far(s.positions) > 1.001 * far(made.intended) + 1e-6)
    says.push(far(s.positions) > 1.5 * far(made.intended) ? 'muchFarther' : 'farther')
  if (s.freedoms !== made.freedoms) says.push(s.freedoms > made.freedoms ? 'looser' : 'tighter')
  if (s.solved && s.disagreements.length > 0) says.push('redundant')
  for (const w of says) {
    tally[w] = (tally[w] ?? 0) + 1
    if (show === w || show === 'all')
      console.log(
        seed,
        w,
        'points',
        sketch.points.length,
        'sizes',
        made.values.size,
        'off',
        off.toExponential(1),
        'freedoms',
        s.freedoms,
        made.freedoms,
        'far',
        far(s.positions).toFixed(3),
        far(made.intended).toFixed(3),
      )
  }
}
console.log(
  JSON.stringify(tally),
  'of',
  count,
  'cpu s',
  ((process.cpuUsage().user - t0) / 1e6).toFixed(1),
  'slowest ms',
  worst.toFixed(0),
)
