import { extentOf } from '@lathica/core/section'
import { computed, inject, ref, type ComputedRef } from 'vue'
import { useLookStore } from '../store/look'
import { usePartStore } from '../store/part'
import { THEME } from '../style/themeKey'
import { cutSpec } from './cutting'
import type { ShownBody } from './drawnBody'
import type { Setting } from './scene'
import { radiusOf } from './turnedBody'

/** The ground of the pane, in the light and in the dark. */
const GROUND = { light: '#ede9dd', dark: '#161c1f' }

/** How the solid is drawn: its display, where it is cut open, and on which ground. */
export function useSetting(bodies: ComputedRef<readonly ShownBody[]>): ComputedRef<Setting> {
  const parts = usePartStore()
  const look = useLookStore()
  const theme = inject(THEME, ref('light'))
  const cut = computed(() => {
    if (!look.cut) return undefined
    const ends = bodies.value.flatMap((b) =>
      b.section.regions.length > 0 ? extentOf(b.section) : [],
    )
    if (ends.length === 0) return undefined
    const radius = Math.max(...bodies.value.flatMap((b) => radiusOf(b.section)))
    const [from, to] =
      look.cut === 'beside' ? [-radius, radius] : [Math.min(...ends), Math.max(...ends)]
    // The very ends would leave nothing, or all.
    const share = 0.001 + 0.998 * look.cutAt
    const tilt = (look.cutTilt * Math.PI) / 180
    return cutSpec(look.cut, parts.lie, from + share * (to - from), tilt)
  })
  return computed(() => {
    const dark = theme.value === 'dark'
    const edge = !dark ? '#1e2a32' : look.display === 'shaded' ? '#0e1214' : '#ece7da'
    return {
      display: look.display,
      cut: cut.value,
      perspective: look.perspective,
      tones: { edge, paper: dark ? GROUND.dark : GROUND.light, dark },
    }
  })
}
