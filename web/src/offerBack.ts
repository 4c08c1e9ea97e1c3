import { message } from 'ant-design-vue'
import { h } from 'vue'

/** Says what was done, and undoes it on request. */
export function offerBack(sentence: string, bringBack: () => Promise<void>): void {
  const key = `back-${crypto.randomUUID()}`
  const undo = (): void => {
    message.destroy(key)
    void bringBack()
  }
  void message.info({
    key,
    duration: 8,
    content: h('span', [
      `${sentence} `,
      h('button', { type: 'button', class: 'plain undo', onClick: undo }, 'Bring it back'),
    ]),
  })
}
