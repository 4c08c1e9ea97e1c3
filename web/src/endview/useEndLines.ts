import { endCircles } from '@lathica/core/section'
import { latheMesh } from '@lathica/core/mesh'
import { computed, type ComputedRef, type Ref } from 'vue'
import { chordFor } from '../solid/turnedBody'
import { useRouteStore } from '../store/route'
import { useSolidsStore } from '../store/solids'
import { endLines, type EndLines } from './endLines'

/** Which end one looks from: the greatest axial position or the least. */
export type End = 'right' | 'left'

/** The part as it is seen from an end: as circles, or, where a body is no full turn, as all its edges. */
export function useEndLines(from: Readonly<Ref<End>>): {
  readonly circles: ComputedRef<ReturnType<typeof endCircles>>
  readonly lines: ComputedRef<EndLines | undefined>
} {
  const route = useRouteStore()
  const solids = useSolidsStore()
  // All bodies as one section, since one body can hide another.
  const circles = computed(() => {
    const regions = route.followedVisible
      .filter((b) => !b.mesh)
      .flatMap(({ section }) => section.regions)
    return endCircles({ regions }, from.value)
  })
  // Where a body is no full turn, its edges as the kernel built them; else circles say all.
  const lines = computed(() => {
    const bodies = route.followedVisible.filter(
      (b) => b.section.regions.length > 0 && (!b.mesh || solids.meshOf(b)),
    )
    if (!bodies.some((b) => solids.meshOf(b))) return undefined
    const meshes = bodies.map((b) => solids.meshOf(b) ?? latheMesh(b.section, chordFor(b.section)))
    return endLines(meshes, from.value)
  })
  return { circles, lines }
}
