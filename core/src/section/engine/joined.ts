import { distance, goesOn, radiusOf, stretch, tangentAt } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import type { EdgeName, Loop, SectionEdge } from '../types'

/** Stretches of one edge that follow one another again, as one. */
export function joined(loop: Loop): Loop {
  const out: SectionEdge[] = []
  for (const edge of loop) {
    const last = out.at(-1)
    if (last && continues(last, edge)) out[out.length - 1] = through(last, edge)
    else out.push(edge)
  }
  const [start] = out
  const end = out.at(-1)
  if (start && end && out.length > 2 && continues(end, start)) {
    out[0] = through(end, start)
    out.pop()
  }
  return out
}

const sameName = (a: EdgeName, b: EdgeName): boolean =>
  a === b || (a.step === b.step && a.entity === b.entity)

function through(a: SectionEdge, b: SectionEdge): SectionEdge {
  const [p, q] = [a.piece, b.piece]
  if (p.kind === 'cubic' && q.kind === 'cubic') {
    return { ...a, piece: { ...p, to: q.to, end: q.end } }
  }
  return { ...a, piece: stretch(p, p.from, q.to) }
}

function continues(a: SectionEdge, b: SectionEdge): boolean {
  if (!sameName(a.name, b.name)) return false
  const [p, q] = [a.piece, b.piece]
  const [u, v] = [tangentAt(p, 1), tangentAt(q, 0)]
  if (Math.abs(u.x * v.y - u.y * v.x) > 1e-7 || u.x * v.x + u.y * v.y < 0) return false
  if (p.kind === 'line' || q.kind === 'line') return p.kind === q.kind
  if (p.kind === 'cubic' || q.kind === 'cubic') {
    return p.kind === 'cubic' && q.kind === 'cubic' && goesOn(p, q, VERTEX_TOLERANCE)
  }
  return (
    distance(p.centre, q.centre) <= VERTEX_TOLERANCE &&
    Math.abs(radiusOf(p) - radiusOf(q)) <= VERTEX_TOLERANCE &&
    distance(p.from, q.to) > VERTEX_TOLERANCE
  )
}
