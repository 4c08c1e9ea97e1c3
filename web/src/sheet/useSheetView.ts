import type { Paper } from '@lathica/core/drawing'
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'

/** Room left round the sheet when all of it is shown, as a share of it. */
const ROOM = 0.03
const LEAST = 0.2
const MOST = 40

interface Box {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** What is seen of the sheet: its viewBox in mm, y downwards from minus its height. */
export function useSheetView(
  element: Ref<HTMLElement | null>,
  paper: Ref<Paper | undefined>,
  asked: Ref<number>,
  /** What is to be seen whole, in mm, y downwards; the paper where this is undefined. */
  whole: () => Box | undefined,
) {
  const { width, height } = useElementSize(element)
  /** Times the size at which all of it is seen, and the place in the middle, in mm. */
  const zoom = ref(1)
  const middle = ref({ x: 0, y: 0 })

  function fit(): void {
    const p = paper.value
    if (!p) return
    const box = whole() ?? { x: 0, y: -p.height, width: p.width, height: p.height }
    const shareOf = (w: number, h: number): number => Math.min(width.value / w, height.value / h)
    const own = shareOf(box.width, box.height) / shareOf(p.width, p.height)
    zoom.value = Number.isFinite(own) && own > 0 ? Math.min(MOST, own) : 1
    middle.value = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  }
  watch([() => paper.value?.width, () => paper.value?.height, asked], fit, {
    ...{ immediate: true, flush: 'post' },
  })

  /** Pixels for a mm. */
  const pixels = computed(() => {
    const p = paper.value
    if (!p || width.value === 0) return 1
    const whole = Math.min(width.value / p.width, height.value / p.height) * (1 - ROOM)
    return whole * zoom.value
  })
  const box = computed(() => {
    const [w, h] = [width.value / pixels.value, height.value / pixels.value]
    return [middle.value.x - w / 2, middle.value.y - h / 2, w, h].join(' ')
  })

  /** The place of the sheet under a place of the window, in mm, y downwards. */
  function placeAt(event: { readonly clientX: number; readonly clientY: number }) {
    const rect = element.value?.getBoundingClientRect()
    if (!rect) return { x: 0, y: 0 }
    return {
      x: middle.value.x + (event.clientX - rect.left - rect.width / 2) / pixels.value,
      y: middle.value.y + (event.clientY - rect.top - rect.height / 2) / pixels.value,
    }
  }

  /** Larger or smaller, what is under a place staying there. */
  function zoomAt(event: { readonly clientX: number; readonly clientY: number }, by: number): void {
    const before = placeAt(event)
    zoom.value = Math.min(MOST, Math.max(LEAST, zoom.value * by))
    const after = placeAt(event)
    middle.value = {
      x: middle.value.x + before.x - after.x,
      y: middle.value.y + before.y - after.y,
    }
  }

  /** In pixels. */
  function pan(dx: number, dy: number): void {
    const { x, y } = middle.value
    middle.value = { x: x - dx / pixels.value, y: y - dy / pixels.value }
  }

  return { box, pixels, placeAt, zoomAt, pan }
}
