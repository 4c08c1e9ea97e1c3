import { useEventListener } from '@vueuse/core'
import { ref, type Ref } from 'vue'
import { useBoardStore } from '../store/board'
import { useRouteStore } from '../store/route'
import { refAt, type SectionRef } from './refs'
import { REF_REACH, type PointerAt } from './tools'
import { pannedBy, toPlane, zoomedAt, type Px } from './view'

/** Two presses within this are a double click, in ms. */
const DOUBLE_CLICK = 350

/** Feeds the pointer to the tool in hand; the wheel zooms, the middle and right buttons pan. */
export function useBoardPointer(element: Ref<HTMLElement | null>): { readonly at: Ref<Px | null> } {
  const board = useBoardStore()
  const route = useRouteStore()
  const at = ref<Px | null>(null)
  let panningFrom: Px | undefined
  let pressed = false

  const place = (event: PointerEvent | WheelEvent): Px => {
    const box = element.value?.getBoundingClientRect()
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  }
  // A pointer event does not count clicks; two presses at one place within a moment are a double one.
  let lastPress: { readonly px: Px; readonly time: number } | undefined
  const isDouble = (event: PointerEvent): boolean => {
    const px = place(event)
    const near = lastPress && Math.hypot(px.x - lastPress.px.x, px.y - lastPress.px.y) < 5
    const double = near === true && event.timeStamp - (lastPress?.time ?? 0) < DOUBLE_CLICK
    lastPress = double ? undefined : { px, time: event.timeStamp }
    return double
  }
  const pointer = (event: PointerEvent, double = false): PointerAt => ({
    px: place(event),
    shift: event.shiftKey,
    alt: event.altKey,
    double,
  })
  const isOnPaper = (event: Event): boolean =>
    event.target instanceof Element && event.target.closest('[data-floats]') === null

  useEventListener(element, 'pointerdown', (event: PointerEvent) => {
    if (!board.view || !isOnPaper(event)) return
    if (event.button === 1 || event.button === 2) {
      event.preventDefault()
      panningFrom = place(event)
    } else if (event.button === 0) {
      // The board takes the focus first: a field left open takes its value, or stays if it cannot.
      element.value?.focus()
      if (board.field) return
      pressed = true
      board.taken = []
      board.feed(board.toolState?.press?.(pointer(event, isDouble(event))))
    }
    element.value?.setPointerCapture(event.pointerId)
  })

  // Else the press would move the focus out of a field that the tool opens.
  useEventListener(element, 'mousedown', (event: MouseEvent) => {
    if (isOnPaper(event)) event.preventDefault()
  })

  useEventListener(element, 'pointermove', (event: PointerEvent) => {
    const here = place(event)
    at.value = here
    if (!board.view) return
    if (panningFrom) {
      board.view = pannedBy(board.view, here.x - panningFrom.x, here.y - panningFrom.y)
      panningFrom = here
    } else if (pressed || isOnPaper(event)) {
      board.feed(board.toolState?.move?.(pointer(event)))
      const looks = board.toolId === 'pick' && !board.looksAtEnd
      if (looks) route.hoverRef = pressed ? undefined : faceUnder(here)
    }
  })

  /** The face of the part there, which is lit on the solid too. */
  const faceUnder = (at: Px): SectionRef | undefined => {
    const { view } = board
    return view && refAt(route.visible, toPlane(view, at), REF_REACH / view.scale, 'face')
  }

  useEventListener(element, ['pointerup', 'pointercancel'], (event: PointerEvent) => {
    if (panningFrom) panningFrom = undefined
    else if (pressed) {
      pressed = false
      board.feed(board.toolState?.release?.(pointer(event)))
    }
  })

  useEventListener(element, 'pointerleave', () => {
    at.value = null
    if (!pressed) board.hover = undefined
    if (board.toolId === 'pick') route.hoverRef = undefined
  })

  useEventListener(
    element,
    'wheel',
    (event: WheelEvent) => {
      event.preventDefault()
      if (!board.view) return
      const step = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? 40 : 1
      const turn = Math.max(-240, Math.min(240, event.deltaY * step))
      board.view = zoomedAt(board.view, place(event), Math.exp(-turn / 400))
    },
    { passive: false },
  )
  useEventListener(element, 'contextmenu', (event: Event) => {
    if (isOnPaper(event)) event.preventDefault()
  })

  return { at }
}
