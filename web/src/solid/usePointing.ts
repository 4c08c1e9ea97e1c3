import { useEventListener } from '@vueuse/core'
import { computed, ref, type ComputedRef, type Ref } from 'vue'
import type { SectionRef } from '../board/refs'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import { refWords } from './words'

/** The width of a letter of the words, in pixels, rather more than less. */
const CHARACTER = 6.6
/** What stands between the pointer and the pane's edge besides letters. */
const RIM = 30

/**
 * Lights what the pointer is over on the solid, and says it beside the pointer.
 * @param refUnder what lies under the pointer, or the single stretch of an edge there
 * @param leave told when the pointer leaves
 */
export function usePointing(
  canvas: Readonly<Ref<HTMLCanvasElement | null>>,
  width: Readonly<Ref<number>>,
  refUnder: (event: PointerEvent, single: boolean) => SectionRef | undefined,
  leave: () => void,
): {
  readonly words: ComputedRef<string>
  /** Where they stand on the pane. */
  readonly wordsStyle: ComputedRef<Record<string, string> | undefined>
  /** Looks again at what is under a pointer that rests: the picture has changed. */
  readonly again: () => void
} {
  const parts = usePartStore()
  const route = useRouteStore()
  const at = ref<{ readonly x: number; readonly y: number }>()
  let moved: PointerEvent | undefined

  const point = (event: PointerEvent, single: boolean): void => {
    at.value = undefined
    if (event.buttons !== 0) return
    const found = refUnder(event, single)
    const same = found?.key === route.hoverRef?.key && found?.body === route.hoverRef?.body
    if (!same) route.hoverRef = found
    const box = canvas.value?.getBoundingClientRect()
    if (found && box) at.value = { x: event.clientX - box.left, y: event.clientY - box.top }
  }
  useEventListener(canvas, 'pointermove', (event: PointerEvent) => {
    moved = event
    point(event, event.shiftKey)
  })
  // Shift means one stretch of an edge, before the pointer moves again.
  useEventListener(window, ['keydown', 'keyup'], ({ key, type }: KeyboardEvent) => {
    if (key === 'Shift' && route.ask?.rims && moved) point(moved, type === 'keydown')
  })
  const again = (): void => {
    if (moved) point(moved, moved.shiftKey)
  }
  useEventListener(canvas, 'pointerleave', () => {
    moved = undefined
    leave()
    route.hoverRef = undefined
    at.value = undefined
  })

  const words = computed(() => {
    const { hoverRef } = route
    return at.value && hoverRef ? refWords(hoverRef, parts, route.onSolid) : ''
  })
  const wordsStyle = computed(() => {
    if (!at.value) return undefined
    // Where it would run out of the pane it stands on the other side of the pointer.
    const room = RIM + CHARACTER * words.value.length
    const flip = at.value.x + room > width.value
    // Where neither side has room, over it, in several lines if need be.
    if (flip && at.value.x < room) {
      const [left, high] = [Math.max(4, width.value - room - 4), room > width.value ? 50 : 34]
      return {
        ...{ left: `${left}px`, top: `${Math.max(4, at.value.y - high)}px` },
        ...{ maxWidth: `${width.value - 8}px`, whiteSpace: 'normal' },
      }
    }
    return {
      left: `${at.value.x + (flip ? -14 : 14)}px`,
      top: `${Math.max(4, at.value.y - 30)}px`,
      transform: flip ? 'translateX(-100%)' : 'none',
    }
  })
  return { words, wordsStyle, again }
}
