import { mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia, type Pinia } from 'pinia'
import type { Component } from 'vue'
import type { Part } from '@lathica/core/part'
import { useBoardStore } from '../../src/store/board'
import { usePartStore } from '../../src/store/part'
import { VIEW } from './bench'
import { FakeServer } from './server'

// The test page lays nothing out, so there is nothing to scroll.
Element.prototype.scrollIntoView = () => undefined

/** A page with a part opened from a fake server, on which single components are mounted. */
export interface Screen {
  readonly parts: ReturnType<typeof usePartStore>
  readonly board: ReturnType<typeof useBoardStore>
  readonly mount: (component: Component, props?: Record<string, unknown>) => VueWrapper
}

let last: Screen | undefined

export async function openScreen(part: Part): Promise<Screen> {
  last?.parts.close()
  localStorage.clear()
  const pinia: Pinia = createPinia()
  setActivePinia(pinia)
  new FakeServer(part)
  const parts = usePartStore()
  const board = useBoardStore()
  await parts.open('p1')
  board.view = VIEW
  board.useTool('pick')
  last = {
    parts,
    board,
    mount: (component, props = {}) =>
      mount(component, { props, attachTo: document.body, global: { plugins: [pinia] } }),
  }
  return last
}
