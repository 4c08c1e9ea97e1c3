import { useEventListener } from '@vueuse/core'
import { ref, watch, type Ref } from 'vue'
import { useBoardStore } from '../store/board'
import { useRouteStore } from '../store/route'
import { escape } from './escape'
import type { Action, Page } from './registry'

const PAGE_KEYS: Readonly<Record<string, Page>> = {
  '1': 'draw',
  '2': 'edit',
  '3': 'tie',
  '4': 'turn',
  '5': 'mill',
  '6': 'note',
}

/** Keys of the modelling screen. They rest while one types or a window is open over the screen. */
export function useShortcuts(
  actions: readonly Action[],
  page: Ref<Page>,
): { readonly searching: Ref<boolean>; readonly listingKeys: Ref<boolean> } {
  const board = useBoardStore()
  const route = useRouteStore()
  const searching = ref(false)
  const listingKeys = ref(false)

  const run = (action: Action): void => {
    route.picked = undefined
    if (action.enabled?.() !== false) action.run()
  }

  // A tool in hand turns the pad to its page; what acts at once leaves the page as it is.
  watch(
    () => board.toolId,
    (id) => {
      const pages = actions.find((a) => a.tool === id)?.pages ?? []
      const [first] = pages
      if (first !== undefined && !pages.includes(page.value)) page.value = first
    },
    { flush: 'sync' },
  )

  /** Special keys that are no action's. True when the key meant something. */
  const special = (event: KeyboardEvent): boolean => {
    switch (event.key) {
      case 'Escape':
        escape()
        return true
      case 'Delete':
      case 'Backspace': {
        const back = event.key === 'Backspace' ? board.toolState?.key?.('Backspace') : undefined
        if (back) {
          board.feed(back)
          return true
        }
        const remove = actions.find((a) => a.id === 'remove')
        if (remove) run(remove)
        return true
      }
      case 'Enter':
      case 'Tab': {
        if (event.target instanceof HTMLButtonElement && event.key === 'Enter') return false
        const next = event.shiftKey ? undefined : board.toolState?.key?.(event.key)
        if (!next) return false
        board.feed(next)
        return true
      }
      case '/':
        searching.value = true
        return true
      case '?':
        listingKeys.value = true
        return true
      default: {
        const to = PAGE_KEYS[event.key]
        if (to) page.value = to
        return to !== undefined
      }
    }
  }

  /** Typing a figure while a tool takes values opens its fields. */
  const typesValue = (event: KeyboardEvent): boolean => {
    if (event.ctrlKey || event.metaKey || event.altKey) return false
    if (/^[\d.]$/.test(event.key) && route.takesFigure) {
      route.typed = { text: event.key }
      return true
    }
    if (!board.toolState?.entry || board.field || !/^[\d.(]$/.test(event.key)) return false
    board.taken = []
    board.typing = event.key
    return true
  }

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (event.defaultPrevented || searching.value || listingKeys.value || isElsewhere(event)) return
    if (typesValue(event)) {
      event.preventDefault()
      return
    }
    const name = nameOf(event)
    const action = shiftedFor(actions, event, page.value) ?? actionFor(actions, name, page.value)
    if (action) {
      event.preventDefault()
      if (!event.repeat || action.repeats) run(action)
    } else if (!event.ctrlKey && !event.metaKey && !event.altKey && special(event)) {
      event.preventDefault()
    }
  })

  return { searching, listingKeys }
}

/**
 * The action of a key: the one on the page in view; where that page leaves the place vacant, the one
 * of another page, drawing before turning before constraining.
 */
function actionFor(actions: readonly Action[], name: string, page: Page): Action | undefined {
  const all = actions.filter((a) => a.key === name)
  const rank = (a: Action): number =>
    Math.min(...(a.pages ?? []).map((p) => ['draw', 'turn', 'edit', 'tie'].indexOf(p)))
  const [other] = [...all].sort((a, b) => rank(a) - rank(b))
  return all.find((a) => a.pages?.includes(page)) ?? other
}

/** The action of a letter with Shift on the page in view; letters without one of their own mean the same as without Shift. */
function shiftedFor(
  actions: readonly Action[],
  { key, shiftKey, ctrlKey, metaKey, altKey }: KeyboardEvent,
  page: Page,
): Action | undefined {
  if (!shiftKey || ctrlKey || metaKey || altKey || key.length !== 1) return undefined
  return actions.find((a) => a.key === `Shift+${key.toLowerCase()}` && a.pages?.includes(page))
}

function nameOf(event: KeyboardEvent): string {
  const control = event.ctrlKey || event.metaKey
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  return `${event.altKey ? 'Alt+' : ''}${control ? 'Ctrl+' : ''}${control && event.shiftKey ? 'Shift+' : ''}${key}`
}

/** While one types, or works a control that has its own keys, the screen's keys rest. */
function isElsewhere(event: KeyboardEvent): boolean {
  const { target } = event
  if (!(target instanceof Element)) return false
  if (target.closest('input, textarea, select, [contenteditable], .ant-modal') !== null) {
    return true
  }
  const button = target.closest('button, a, [role="separator"]')
  return button !== null && (event.key === ' ' || event.key === 'Enter')
}
