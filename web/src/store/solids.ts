import {
  boredIn,
  type Bored,
  foundFor,
  knownFor,
  planKey,
  type PlacedMesh,
  type SolidPlan,
} from '@lathica/core/solid'
import type { BodyState } from '@lathica/core/route'
import { closedMesh, type SolidMesh } from '@lathica/core/mesh'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { dressedMesh } from '../files/meshes'
import { isStopped as wasStopped } from '../kernel/answers'
import { ahead, pictureSolid, waiting, weighSolid } from '../kernel/client'
import { tellProblem } from '../notices'
import { useFindingsStore } from './findings'
import { usePartStore } from './part'
import { useRouteStore } from './route'

/** So many pictures are kept, for undo and for going through the route. */
const MOST_MESHES = 24

/** Pictures are this close to the true surface, in mm, or closer on small parts. */
const TOLERANCE = 0.05

/** Of so many holes along the axis the picture is made at once, before the next one of the page; of more in a thread. */
const MOST_AT_ONCE = 40
/** What comes from outside takes as long as so many of them. */
const ASIDE = 4
const effortOf = (bored: readonly Bored[]): number =>
  bored.reduce((sum, one) => sum + (one.kind === 'aside' ? ASIDE : 1), 0)

/** While something is dragged, what takes longer than this, in ms, is left for what is wanted now. */
const LONGEST_IN_DRAG = 1000

/** From so many ms on Esc stops what is being built: it may follow an edit at once to close what was open for that. */
const LONG = 1000

/** Bodies that are no full turn, as they are pictured. The last good picture stays. */
export const useSolidsStore = defineStore('solids', () => {
  const parts = usePartStore()
  const route = useRouteStore()
  const findings = useFindingsStore()
  const meshes = shallowRef<ReadonlyMap<string, SolidMesh>>(new Map())
  /** The picture of each body that was shown last. */
  const last = new Map<string, SolidMesh>()
  const working = computed(() => waiting.value > 0)
  /** What of the bodies that are shown was stopped by hand, by its key: it is not begun again by itself. */
  const stopped = shallowRef<ReadonlySet<string>>(new Set())
  /** True once a question has not been answered at once. */
  const slow = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(working, (on) => {
    clearTimeout(timer)
    if (on) timer = setTimeout(() => (slow.value = true), 300)
    else slow.value = false
  })

  /** The bodies that are shown or weighed and no full turn. */
  const wanted = computed(() =>
    [...route.onSolid, ...route.followed, ...(parts.followed?.bodies ?? [])].filter(
      (b): b is BodyState & { readonly plan: SolidPlan } => b.plan !== undefined,
    ),
  )
  /** The question in hand: of which plan, since when, what ends it, and whether its picture is waited for. */
  const inHand = shallowRef<{
    readonly plan: SolidPlan
    readonly since: number
    readonly stop: AbortController
    readonly isShown: boolean
  }>()
  function beginning(plan: SolidPlan, isShown: boolean): AbortSignal {
    const stop = new AbortController()
    inHand.value = { plan, isShown, stop, since: performance.now() }
    return stop.signal
  }
  /** A picture takes long enough that one may want to stop it. */
  const canStop = computed(() => slow.value && inHand.value?.isShown === true && !isStopped.value)

  /** It has taken so long that a key means to stop it, not something that was open until just now. */
  const takesLong = (): boolean =>
    canStop.value && performance.now() - (inHand.value?.since ?? Infinity) > LONG

  /** What an edit has passed is left, so that what is wanted now need not wait for it. */
  function leavePassed(): void {
    const asked = inHand.value
    if (!asked || !nextShown()) return
    const key = planKey(asked.plan)
    if (wanted.value.some(({ plan }) => planKey(plan) === key)) return
    // Of what follows the pointer the last picture is better than none.
    const patience = parts.preview ? LONGEST_IN_DRAG : 0
    if (performance.now() - asked.since >= patience) asked.stop.abort()
  }

  /** Stops what is being built; the last good picture stays until it is asked for again, or edited. */
  function stop(): void {
    const keys = wanted.value.map(({ plan }) => planKey(plan)).filter((k) => !meshes.value.has(k))
    stopped.value = new Set(keys)
    inHand.value?.stop.abort()
  }

  /** Begins again what was stopped. */
  function goOn(): void {
    stopped.value = new Set()
    void work()
  }
  const isStopped = computed(() =>
    wanted.value.some(({ plan }) => stopped.value.has(planKey(plan))),
  )

  /** One question after another, always the one that is wanted now: what a drag has passed is left. */
  let busy = false
  async function work(): Promise<void> {
    if (busy) return
    busy = true
    for (let plan = nextShown(); plan; plan = nextShown()) {
      const bored = boredIn(plan)
      const own = bored && effortOf(bored) <= MOST_AT_ONCE ? closedMesh(plan, TOLERANCE) : undefined
      if (own) {
        keep(plan, own)
        continue
      }
      const built = await pictureSolid(plan, TOLERANCE, beginning(plan, true))
      inHand.value = undefined
      if (wasStopped(built)) continue
      if (built.ok) keep(plan, built.value.mesh)
      findings.note(plan, built.ok ? { ok: true, value: built.value.figures } : built)
    }
    busy = false
    void weighNext()
  }
  const keep = (plan: SolidPlan, mesh: SolidMesh): void => {
    const kept = [...meshes.value, [planKey(plan), mesh] as const]
    meshes.value = new Map(kept.slice(-MOST_MESHES))
  }
  const nextShown = (): SolidPlan | undefined =>
    wanted.value.find(({ plan }) => {
      const found = foundFor(findings.known, plan)
      const key = planKey(plan)
      return found?.ok !== false && !meshes.value.has(key) && !stopped.value.has(key)
    })?.plan

  /** What each step changed takes the figures of the states on the way; they come when there is time. */
  async function weighNext(): Promise<void> {
    if (busy || parts.preview) return
    const plans = (parts.followed?.steps ?? []).flatMap((s) =>
      s.bodies.flatMap((b) => b.plan ?? []),
    )
    const plan = plans.find((p) => !knownFor(findings.known, p) && !stopped.value.has(planKey(p)))
    if (!plan) return
    busy = true
    const answer = await weighSolid(plan, beginning(plan, false))
    inHand.value = undefined
    if (!wasStopped(answer)) findings.note(plan, answer)
    busy = false
    void work()
  }

  /** Meshes that came in files, as they are shown. */
  const foreign = shallowRef<ReadonlyMap<PlacedMesh, SolidMesh>>(new Map())
  const dressing = new Set<PlacedMesh>()
  async function dress(placed: PlacedMesh): Promise<void> {
    if (foreign.value.has(placed) || dressing.has(placed)) return
    dressing.add(placed)
    try {
      const mesh = await dressedMesh(placed)
      foreign.value = new Map([...foreign.value, [placed, mesh] as const].slice(-MOST_MESHES))
    } catch {
      tellProblem({
        message: 'The picture of a mesh could not be made.',
        mend: 'Open the part again, or bring the mesh in with a coarser tolerance.',
      })
    } finally {
      dressing.delete(placed)
    }
  }
  watch(
    () => [...route.onSolid, ...route.followed].flatMap((b) => b.mesh ?? []),
    (wantedMeshes) => {
      for (const placed of new Set(wantedMeshes)) void dress(placed)
    },
    { immediate: true },
  )

  /** The picture of a body as it stands, or the last good one; undefined while there is none. */
  function meshOf(body: BodyState): SolidMesh | undefined {
    if (!body.plan && !body.mesh) {
      last.delete(body.bodyId)
      return undefined
    }
    const now = body.mesh
      ? foreign.value.get(body.mesh)
      : body.plan && meshes.value.get(planKey(body.plan))
    const mesh = now ?? last.get(body.bodyId)
    if (mesh) last.set(body.bodyId, mesh)
    return mesh
  }

  watch(
    [wanted, () => parts.preview],
    () => {
      leavePassed()
      void work()
    },
    { immediate: true },
  )
  watch(
    () => parts.id,
    () => {
      last.clear()
      stopped.value = new Set()
    },
  )

  return { slow, working, ahead, isStopped, canStop, takesLong, meshOf, stop, goOn }
})
