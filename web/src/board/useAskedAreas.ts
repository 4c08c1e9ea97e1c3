import type { Region } from '@lathica/core/section'
import { computed, type ComputedRef } from 'vue'
import { useRouteStore } from '../store/route'

/** An area of a profile to choose from. */
export interface ShownArea {
  readonly region: Region
  readonly chosen: boolean
  readonly hover: boolean
}

/** The areas of a profile that a step asks for, as board and solid pane show them. */
export function useAskedAreas(): ComputedRef<readonly ShownArea[]> {
  const route = useRouteStore()
  return computed(() => {
    const { ask, hoverRef } = route
    const chosen = new Set(ask?.chosen() ?? [])
    return (ask?.areas?.().regions ?? []).map((region, i) => ({
      region,
      chosen: chosen.has(String(i)),
      hover: hoverRef?.key === String(i),
    }))
  })
}
