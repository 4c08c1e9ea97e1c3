/** What open pages of the browser tell one another of saved parts. */
export const CHANNEL = 'lathica.saved'

/** What open pages tell one another of a part: the revision they saved, or that it was deleted. */
export interface Told {
  readonly id: string
  readonly revision: number | 'gone'
}

/** Tells pages that have a part open that it was deleted. */
export function tellDeleted(id: string): void {
  const pages = new BroadcastChannel(CHANNEL)
  pages.postMessage({ id, revision: 'gone' } satisfies Told)
  pages.close()
}
