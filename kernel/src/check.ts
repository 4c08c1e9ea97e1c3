import type { OpenCascade, Shape } from './openCascade'

type Analyzer = InstanceType<OpenCascade['BRepCheck_Analyzer']>

/** An analyzer does not give back all it takes: one is used again and again. */
const analyzers = new WeakMap<OpenCascade, Analyzer>()

/** The kernel's own check of a shape: of its faces and edges, and how they meet. */
export function isSound(oc: OpenCascade, shape: Shape): boolean {
  const known = analyzers.get(oc)
  const analyzer = known ?? new oc.BRepCheck_Analyzer(shape, true)
  if (known) known.Init(shape, true)
  else analyzers.set(oc, analyzer)
  return analyzer.IsValid()
}
