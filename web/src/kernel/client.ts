import type { Look, Seen } from '@lathica/core/drawing'
import type { LiftedProperties, SolidPlan } from '@lathica/core/solid'
import type { BroughtSolid } from '@lathica/core/edit'
import type { RecoveredPart } from '@lathica/core/recover'
import type { BodyPlan } from '@lathica/core/formats'
import { WARM_ROUNDS, type BuiltSolid, type Progress } from '@lathica/kernel'
import { proxy, wrap, type Remote } from 'comlink'
import { ref } from 'vue'
import type { Answer } from './answers'
import type { KernelThread } from './worker'

/** A question that takes longer than this, in ms, will not be answered any more. */
const LONGEST = 60_000

/** A thread whose memory has grown past this many bytes is replaced by a fresh one. */
const MOST_MEMORY = 500_000_000

let thread: { readonly worker: Worker; readonly remote: Remote<KernelThread> } | undefined
let last: Promise<unknown> = Promise.resolve()

/** How many questions wait or are being answered, but for those nobody waits for. */
export const waiting = ref(0)

function remote(): Remote<KernelThread> {
  if (!thread) {
    const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
    thread = { worker, remote: wrap<KernelThread>(worker) }
  }
  return thread.remote
}

function endThread(): void {
  thread?.worker.terminate()
  thread = undefined
}

interface Asking {
  /** Nobody waits for it. */
  readonly background?: boolean
  /** Ends it before it is answered. */
  readonly stop?: AbortSignal
}

/** Puts a question to the kernel's thread; one that hangs or dies ends in a problem and a fresh thread. */
function ask<T>(
  question: (kernel: Remote<KernelThread>) => Promise<Answer<T>>,
  { background = false, stop }: Asking = {},
): Promise<Answer<T>> {
  if (!background) waiting.value += 1
  const answer = last
    .then(() => answered(question, stop))
    .finally(() => {
      if (!background) waiting.value -= 1
    })
  last = answer
  return answer
}

async function answered<T>(
  question: (kernel: Remote<KernelThread>) => Promise<Answer<T>>,
  stop: AbortSignal | undefined,
): Promise<Answer<T>> {
  const wasStopped = (): boolean => stop?.aborted ?? false
  if (wasStopped()) return STOPPED
  let timer: ReturnType<typeof setTimeout> | undefined
  try {
    const kernel = remote()
    const dead = new Promise<never>((_, reject) => {
      // What can be stopped takes as long as its owner waits.
      if (!stop) timer = setTimeout(() => reject(new Error('it took too long')), LONGEST)
      stop?.addEventListener('abort', () => reject(new Error('it was stopped')))
      thread?.worker.addEventListener('error', () => reject(new Error('it stopped')))
    })
    const answer = await Promise.race([question(kernel), dead])
    const memory = await kernel.memory()
    if (memory.ok && memory.value > MOST_MEMORY) endThread()
    return answer
  } catch (error) {
    endThread()
    if (wasStopped()) return STOPPED
    return { ok: false, problem: brokenBy(error), after: undefined }
  } finally {
    clearTimeout(timer)
  }
}

/** The answer to what its owner stopped. */
export const STOPPED = {
  ok: false,
  problem: { code: 'kernel.stopped', message: 'It was stopped.', mend: 'Begin it again.' },
  after: undefined,
} as const

const brokenBy = (error: unknown): { code: string; message: string; mend: string } => ({
  code: 'kernel.broken',
  message: `The solid kernel gave no answer: ${error instanceof Error ? error.message : String(error)}.`,
  mend: 'It was started afresh. Change a size by a little, or set the last step aside.',
})

/** Makes the kernel ready before it is needed; whoever asks for something meanwhile goes first. */
export async function prepareKernel(): Promise<void> {
  if (thread) return
  for (let round = 0; round < WARM_ROUNDS && waiting.value === 0; round++) {
    await ask((k) => k.prepare(round), { background: true })
  }
}

/** The picture of a plan and its figures, of what has a closed form without the kernel. */
export const pictureSolid = (
  plan: SolidPlan,
  tolerance: number,
): Promise<Answer<Omit<BuiltSolid, 'valid'>>> => ask((k) => k.picture(plan, tolerance))

/** Builds a plan: its triangles and its figures. */
export const buildSolid = (plan: SolidPlan, tolerance: number): Promise<Answer<BuiltSolid>> =>
  ask((k) => k.build(plan, tolerance))

/** What a drawing sees of bodies together, looked at in one way. */
export const seeSolids = (plans: readonly SolidPlan[], look: Look): Promise<Answer<Seen>> =>
  ask((k) => k.see(plans, look))

/** The figures of a plan alone; nobody waits for them. */
export const weighSolid = (plan: SolidPlan): Promise<Answer<LiftedProperties | undefined>> =>
  ask((k) => k.weigh(plan), { background: true })

/**
 * A part from an exchange file that was brought in.
 * @param tell is told how far it has come
 */
export const bringIn = (
  text: string,
  name: string,
  tell: (progress: Progress) => void,
  stop: AbortSignal,
): Promise<Answer<RecoveredPart>> => ask((k) => k.bringIn(text, name, proxy(tell)), { stop })

/** The solids of an exchange file as they are, to be put into a part. */
export const solidsOf = (text: string): Promise<Answer<readonly BroughtSolid[]>> =>
  ask((k) => k.solidsOf(text))

/** An exchange file of bodies. */
export const writeSolids = (bodies: readonly BodyPlan[], name: string): Promise<Answer<string>> =>
  ask((k) => k.writeStep(bodies, name))
