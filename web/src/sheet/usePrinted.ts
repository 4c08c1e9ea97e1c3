import { onBeforeUnmount, onMounted } from 'vue'
import { tellProblem } from '../notices'

/** A browser that is asked to print begins within this, in ms. */
const SOON = 1500

/**
 * Prints something else than the page: whenever the browser prints, from here or from its own menu.
 * @param html what is printed instead; empty where the page itself is
 */
export function usePrinted(html: () => string): { readonly print: () => void } {
  const holder = document.createElement('div')
  holder.className = 'printed-sheet'
  let began = false
  const fill = (): void => {
    began = true
    holder.innerHTML = html()
  }
  const empty = (): void => holder.replaceChildren()

  onMounted(() => {
    document.body.append(holder)
    window.addEventListener('beforeprint', fill)
    window.addEventListener('afterprint', empty)
  })
  onBeforeUnmount(() => {
    holder.remove()
    window.removeEventListener('beforeprint', fill)
    window.removeEventListener('afterprint', empty)
  })

  const refused = (): void =>
    tellProblem({
      message: 'This browser does not print here.',
      mend: 'Save the PDF and print that.',
    })

  function print(): void {
    began = false
    try {
      window.print()
    } catch {
      refused()
      return
    }
    setTimeout(() => {
      if (!began) refused()
    }, SOON)
  }
  return { print }
}
