import { materialOf } from '@lathica/core/inspect'
import { computed, type ComputedRef } from 'vue'
import { useLookStore } from '../store/look'
import { useNotesStore } from '../store/notes'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import { useSolidsStore } from '../store/solids'
import type { ShownBody } from './drawnBody'
import type { SaidFace } from './saidLines'

const NOTHING_SAID: readonly SaidFace[] = []
/** What stands there to go by is paler than any material. */
const TO_GO_BY = '#d8d2c2'

/** The bodies as the solid pane shows them: their shape, their looks, and what is said of their faces. */
export function useShownBodies(): ComputedRef<readonly ShownBody[]> {
  const parts = usePartStore()
  const route = useRouteStore()
  const notes = useNotesStore()
  const look = useLookStore()
  const solids = useSolidsStore()
  return computed(() =>
    route.onSolid
      .filter((b) => look.alone === undefined || b.bodyId === look.alone)
      // A mesh to go by has no other picture.
      .filter((b) => !b.mesh || solids.meshOf(b))
      .map((b): ShownBody => {
        const body = parts.bodies.find((x) => x.id === b.bodyId)
        const material = materialOf(parts, b.bodyId)
        return {
          id: b.bodyId,
          section: b.section,
          mesh: solids.meshOf(b),
          colour: body?.colour || (b.reference ? TO_GO_BY : (material?.colour ?? '#8d979d')),
          look: body?.look || (material?.look ?? 'metal'),
          glassy: look.glassy.has(b.bodyId),
          said: notes.saidFaces.get(b.bodyId) ?? NOTHING_SAID,
        }
      }),
  )
}
