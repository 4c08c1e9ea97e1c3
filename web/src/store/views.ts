import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

export type ViewOfPart = 'model' | 'inspect' | 'sheet' | 'dispatch'

/** Which view of the part is asked for by a key or a command; the page itself goes there. */
export const useViewsStore = defineStore('views', () => {
  const asked = shallowRef<{ readonly view: ViewOfPart }>()

  function go(view: ViewOfPart): void {
    asked.value = { view }
  }

  return { asked, go }
})
