/**
 * Lets the designer choose files.
 * @param accept kinds or endings, as an input of the page tells them
 */
export function choose(
  accept: string,
  take: (file: File) => Promise<void>,
  multiple = false,
): void {
  const input = document.createElement('input')
  Object.assign(input, { type: 'file', accept, multiple })
  input.addEventListener('change', () => {
    void (async () => {
      for (const file of input.files ?? []) await take(file)
    })()
  })
  input.click()
}
