import type { Look } from '@lathica/core/drawing'
import { closedFigures, plansOf, type SolidAsk, type SolidPlan } from '@lathica/core/solid'
import { closedMesh, meshBends } from '@lathica/core/mesh'
import type { BodyPlan } from '@lathica/core/formats'
import {
  KernelFault,
  compileKernel,
  installGlue,
  loadKernel,
  partFromFile,
  solidsFromFile,
  warm,
  type Ahead,
  type BuiltSolid,
  type Progress,
} from '@lathica/kernel'
import { expose, transfer } from 'comlink'
import wasm from 'replicad-opencascadejs/wasm?url'
import { STOPPED, type Answer } from './answers'
import { buffersOf } from './buffers'

installGlue()

/** How this thread begins: with the kernel's code, if another thread has compiled it. */
let give: (compiled: WebAssembly.Module | undefined) => void = () => undefined
const given = new Promise<WebAssembly.Module | undefined>((resolve) => (give = resolve))
const code = given.then((compiled) => compiled ?? compileKernel(wasm))

/** The solid kernel in a thread of its own; it is loaded as the thread begins. */
const kernel = code.then(loadKernel)
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

/** Is told how far a question has come. */
let tellAhead: (ahead: Ahead) => unknown = () => undefined
/** Nobody wants the answer to the question in hand any more. */
let isLeft = false

/** So often one is told how far it has come, in ms. */
const TELLS = 100

/**
 * Does the operations of plans one by one, and between two hears whether the answer is still wanted; then what `ask`
 * asks of them.
 */
async function byOperations<T>(
  plans: readonly SolidPlan[],
  ask: (loaded: Awaited<typeof kernel>) => T,
): Promise<Answer<T>> {
  isLeft = false
  let told = performance.now()
  for (const plan of plans) {
    for (;;) {
      const step = await answered((k) => k.ahead(plan))
      if (!step.ok) return step
      if (!step.value) break
      if (performance.now() > told + TELLS) {
        told = performance.now()
        tellAhead(step.value)
      }
      await othersTurn()
      if (isLeft) return STOPPED
    }
  }
  return answered(ask)
}

/** Lets what was sent to this thread be heard. */
function othersTurn(): Promise<void> {
  return new Promise((done) => {
    turn.port1.onmessage = () => done()
    turn.port2.postMessage(0)
  })
}
const turn = new MessageChannel()

/** An answer with all that its picture takes, which goes over without a copy. */
function handedOver<T extends Pick<BuiltSolid, 'mesh'>>(answer: Answer<T>): Answer<T> {
  if (!answer.ok) return answer
  const { mesh } = answer.value
  const dressed = { ...mesh, bends: meshBends(mesh) }
  return transfer({ ...answer, value: { ...answer.value, mesh: dressed } }, buffersOf(dressed))
}

const threads = {
  /**
   * The first that is asked of a thread.
   * @param compiled the kernel's code, if another thread compiled it
   * @returns the code, for the threads to come
   */
  async begin(
    compiled: WebAssembly.Module | undefined,
    tell: (ahead: Ahead) => void,
  ): Promise<WebAssembly.Module> {
    tellAhead = tell
    give(compiled)
    await kernel
    return code
  },
  /** The answer to the question in hand is not wanted any more. */
  leave: () => void (isLeft = true),
  /** Loads the kernel and compiles it by a little work, while nobody waits for it. */
  prepare: (round: number) => answered((k) => warm(k, round)),
  build: async (plan: SolidPlan, tolerance: number) =>
    handedOver(await byOperations([plan], (k) => k.build(plan, tolerance))),
  /** What needs no kernel does not wait for it either. */
  async picture(plan: SolidPlan, tolerance: number): Promise<Answer<Omit<BuiltSolid, 'valid'>>> {
    const [mesh, figures] = [closedMesh(plan, tolerance), closedFigures(plan)]
    if (mesh && figures) return handedOver({ ok: true, value: { mesh, figures } })
    return threads.build(plan, tolerance)
  },
  weigh: (plan: SolidPlan) => byOperations([plan], (k) => k.weigh(plan)),
  measure: (ask: SolidAsk) => byOperations(plansOf(ask), (k) => k.measure(ask)),
  see: (plans: readonly SolidPlan[], look: Look) => byOperations(plans, (k) => k.see(plans, look)),
  writeStep: (bodies: readonly BodyPlan[], name: string) =>
    byOperations(
      bodies.map((b) => b.plan),
      (k) => k.writeStep(bodies, name),
    ),
  bringIn: (text: string, name: string, tell: (progress: Progress) => void) =>
    answered((k) => partFromFile(k, text, name, tell)),
  solidsOf: (text: string) => answered((k) => solidsFromFile(k, text)),
  memory: () => answered((k) => k.memory()),
}

export type KernelThread = typeof threads

expose(threads)
