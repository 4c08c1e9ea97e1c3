/** Hands content to the browser as a download. Characters no file system takes are replaced. */
export function saveFile(content: string | Uint8Array, name: string, type: string): void {
  const data = typeof content === 'string' ? content : new Uint8Array(content)
  const url = URL.createObjectURL(new Blob([data], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name.replace(/[<>:"/\\|?*\u0000-\u001f]/g, '_')
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 1000)
}
