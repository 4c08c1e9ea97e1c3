import { formatAngle, formatLength, type Measure } from '@lathica/core/units'
import { evaluateFormula } from '@lathica/core/formula'
import { isEndSketch } from '@lathica/core/sketch'
import { edgeKey, edgesOf } from '@lathica/core/section'
import { planeCalled } from '@lathica/core/solid'
import { usesSketch, valuesOf, type Step } from '@lathica/core/part'
import { faceWords, solidFaceWords } from '@lathica/core/route'
import { usePartStore } from '../store/part'
import { rowWords } from './kinds'

/** Tells the key size of a step of the open part, by the step and its place in the route. */
export function useStepDetail(): (step: Step, at: number) => string {
  const parts = usePartStore()

  /** What it made, at a glance. */
  function detailOf(step: Step, at: number): string {
    const { part, followed, units } = parts
    if (!part || step.kind === 'unknown') return 'not known to this version'
    const words = rowWords(step, {
      ...{ faceOf: (key: string) => wordsFor(key, at), figure, lie: parts.lie },
      bodyName: (id) => parts.bodies.find((b) => b.id === id)?.name ?? 'a body that is gone',
    })
    if (usesSketch(step) && step.kind !== 'holes') {
      const sketch = part.sketches.find((s) => s.id === step.sketch)
      const name = sketch?.name ?? '?'
      const body = followed?.steps[at]?.bodies.find((b) => b.bodyId === step.body)
      const { solid } = body ?? {}
      const made = words === '' ? '' : `, ${words}`
      if (sketch && isEndSketch(sketch)) return `end sketch ${name}${made}`
      if (!solid) return `profile ${name}${made}`
      const size = `⌀${formatLength(2 * solid.radius, units)} × ${formatLength(solid.to - solid.from, units)}`
      return `profile ${name}${made}, ${size}`
    }
    return words
  }

  /** What a formula comes to, short; the formula itself when it comes to nothing. */
  function figure(formula: string, want: Measure = 'length'): string {
    const { part, units } = parts
    if (!part) return formula
    const result = evaluateFormula(formula, { want, units, lookup: valuesOf(part).table.lookup })
    if (!result.ok) return formula
    if (want === 'angle') return formatAngle(result.value, units)
    return want === 'length' ? formatLength(result.value, units) : String(result.value)
  }

  /** A face in words, as the step finds it. */
  function wordsFor(key: string, at: number): string {
    const bodies = parts.followed?.steps[at - 1]?.bodies ?? []
    const edge = bodies.flatMap((b) => edgesOf(b.section)).find((e) => edgeKey(e.name) === key)
    if (edge) return faceWords(edge, parts.units)
    const isPlane = bodies.some(({ plan }) => plan && planeCalled(plan, key))
    return isPlane ? solidFaceWords(key, parts.route) : 'a face that is gone'
  }

  return detailOf
}
