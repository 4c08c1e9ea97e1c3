import type { Look, Seen } from '@lathica/core/drawing'
import type { LiftedProperties, SolidAsk, SolidPlan, SolidTold } from '@lathica/core/solid'
import type { BroughtSolid } from '@lathica/core/edit'
import type { RecoveredPart } from '@lathica/core/recover'
import type { BodyPlan } from '@lathica/core/formats'
import { WARM_ROUNDS, type Ahead, type BuiltSolid, type Progress } from '@lathica/kernel'
import { proxy, wrap, type Remote } from 'comlink'
import { ref, shallowRef } from 'vue'
import { STOPPED, type Answer } from './answers'
import type { KernelThread } from './worker'

/** A question that takes longer than this, in ms, will not be answered any more. */
const LONGEST = 60_000

/** A question that was stopped is given this long, in ms, to come to a place where it can be left. */
const GRACE = 250

/** A thread whose memory has grown past this many bytes is replaced by a fresh one. */
const MOST_MEMORY = 500_000_000

interface Thread {
  readonly worker: Worker
  readonly remote: Remote<KernelThread>
  /** Loaded and compiled. */
  isReady: boolean
}

let thread: Thread | undefined
let last: Promise<unknown> = Promise.resolve()

/** How many questions wait or are being answered, but for those nobody waits for. */
export const waiting = ref(0)

/** How far the question in hand has come, of one that takes long. */
export const ahead = shallowRef<Ahead>()

/** The kernel's code, compiled once: a thread that follows another is ready in a fifth of the time. */
let code: WebAssembly.Module | undefined

function remote(): Remote<KernelThread> {
  if (!thread) {
    const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
    const made: Thread = { worker, remote: wrap<KernelThread>(worker), isReady: false }
    thread = made
    // What fails is told with the first answer.
    made.remote
      .begin(
        code,
        proxy((now: Ahead) => (ahead.value = now)),
      )
      .then(
        (compiled) => {
          code = compiled
          made.isReady = true
        },
        () => undefined,
      )
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
  readonly stop?: AbortSignal | undefined
  /** It takes as long as its owner waits. */
  readonly patient?: boolean
}

/** Puts a question to the kernel's thread; one that hangs or dies ends in a problem and a fresh thread. */
function ask<T>(question: Question<T>, asking: Asking = {}): Promise<Answer<T>> {
  const { background = false } = asking
  if (!background) waiting.value += 1
  const answer = last
    .then(() => answered(question, asking))
    .finally(() => {
      if (!background) waiting.value -= 1
    })
  last = answer
  return answer
}

type Question<T> = (kernel: Remote<KernelThread>) => Promise<Answer<T>>

async function answered<T>(question: Question<T>, asking: Asking): Promise<Answer<T>> {
  const { stop, patient = false } = asking
  const wasStopped = (): boolean => stop?.aborted ?? false
  if (wasStopped()) return STOPPED
  const timers: ReturnType<typeof setTimeout>[] = []
  const over = new AbortController()
  try {
    const kernel = remote()
    const dead = new Promise<never>((_, reject) => {
      const after = (time: number, why: string): void =>
        void timers.push(setTimeout(() => reject(new Error(why)), time))
      if (!patient) after(LONGEST, 'it took too long')
      const listening = { signal: over.signal }
      const leave = (): void => {
        void kernel.leave()
        // One that is being loaded would only have to be loaded again.
        if (thread?.isReady === true || patient) after(GRACE, 'it was stopped')
      }
      stop?.addEventListener('abort', leave, listening)
      const died = (): void => reject(new Error('it stopped'))
      thread?.worker.addEventListener('error', died, listening)
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
    ahead.value = undefined
    over.abort()
    timers.forEach(clearTimeout)
  }
}

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
  stop: AbortSignal,
): Promise<Answer<Omit<BuiltSolid, 'valid'>>> => ask((k) => k.picture(plan, tolerance), { stop })

/** Builds a plan: its triangles and its figures. */
export const buildSolid = (plan: SolidPlan, tolerance: number): Promise<Answer<BuiltSolid>> =>
  ask((k) => k.build(plan, tolerance))

/** What a drawing sees of bodies together, looked at in one way. */
export const seeSolids = (
  plans: readonly SolidPlan[],
  look: Look,
  stop?: AbortSignal,
): Promise<Answer<Seen>> => ask((k) => k.see(plans, look), { stop })

/** What is asked of solids as they are; nobody waits for it. */
export const measureSolid = (question: SolidAsk, stop: AbortSignal): Promise<Answer<SolidTold>> =>
  ask((k) => k.measure(question), { background: true, stop })

/** The figures of a plan alone; nobody waits for them. */
export const weighSolid = (
  plan: SolidPlan,
  stop: AbortSignal,
): Promise<Answer<LiftedProperties | undefined>> =>
  ask((k) => k.weigh(plan), { background: true, stop })

/**
 * A part from an exchange file that was brought in.
 * @param tell is told how far it has come
 */
export const bringIn = (
  text: string,
  name: string,
  tell: (progress: Progress) => void,
  stop: AbortSignal,
): Promise<Answer<RecoveredPart>> =>
  ask((k) => k.bringIn(text, name, proxy(tell)), { stop, patient: true })

/** The solids of an exchange file as they are, to be put into a part. */
export const solidsOf = (text: string): Promise<Answer<readonly BroughtSolid[]>> =>
  ask((k) => k.solidsOf(text))

/** An exchange file of bodies. */
export const writeSolids = (bodies: readonly BodyPlan[], name: string): Promise<Answer<string>> =>
  ask((k) => k.writeStep(bodies, name))
