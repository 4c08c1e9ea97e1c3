import type { Look } from '@lathica/core/drawing'
import { closedFigures, type SolidPlan } from '@lathica/core/solid'
import { boredMesh, meshBends } from '@lathica/core/mesh'
import type { BodyPlan } from '@lathica/core/formats'
import {
  KernelFault,
  installGlue,
  loadKernel,
  partFromFile,
  solidsFromFile,
  warm,
  type BuiltSolid,
  type Progress,
} from '@lathica/kernel'
import { expose, transfer } from 'comlink'
import wasm from 'replicad-opencascadejs/wasm?url'
import type { Answer } from './answers'
import { buffersOf } from './buffers'

installGlue()

/** The solid kernel in a thread of its own; it is loaded with the first question. */
const kernel = loadKernel(wasm)
// In the thread's own time, which began with the first need. What fails is told with the first answer.
kernel.then(
  () => performance.mark('solid kernel ready'),
  () => undefined,
)

async function answered<T>(ask: (loaded: Awaited<typeof kernel>) => T): Promise<Answer<T>> {
  try {
    return { ok: true, value: ask(await kernel) }
  } catch (thrown) {
    if (!(thrown instanceof KernelFault)) throw thrown
    return { ok: false, problem: thrown.problem, after: thrown.after }
  }
}

/** An answer with all that its picture takes, which goes over without a copy. */
function handedOver<T extends Pick<BuiltSolid, 'mesh'>>(answer: Answer<T>): Answer<T> {
  if (!answer.ok) return answer
  const { mesh } = answer.value
  const dressed = { ...mesh, bends: meshBends(mesh) }
  return transfer({ ...answer, value: { ...answer.value, mesh: dressed } }, buffersOf(dressed))
}

const threads = {
  /** Loads the kernel and compiles it by a little work, while nobody waits for it. */
  prepare: (round: number) => answered((k) => warm(k, round)),
  build: async (plan: SolidPlan, tolerance: number) =>
    handedOver(await answered((k) => k.build(plan, tolerance))),
  /** What needs no kernel does not wait for it either. */
  async picture(plan: SolidPlan, tolerance: number): Promise<Answer<Omit<BuiltSolid, 'valid'>>> {
    const [mesh, figures] = [boredMesh(plan, tolerance), closedFigures(plan)]
    if (mesh && figures) return handedOver({ ok: true, value: { mesh, figures } })
    return threads.build(plan, tolerance)
  },
  weigh: (plan: SolidPlan) => answered((k) => k.weigh(plan)),
  see: (plans: readonly SolidPlan[], look: Look) => answered((k) => k.see(plans, look)),
  writeStep: (bodies: readonly BodyPlan[], name: string) =>
    answered((k) => k.writeStep(bodies, name)),
  bringIn: (text: string, name: string, tell: (progress: Progress) => void) =>
    answered((k) => partFromFile(k, text, name, tell)),
  solidsOf: (text: string) => answered((k) => solidsFromFile(k, text)),
  memory: () => answered((k) => k.memory()),
}

export type KernelThread = typeof threads

expose(threads)
