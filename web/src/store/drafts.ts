/** Work that is not on the server yet, kept by the browser so that a closed page loses nothing. */
export interface Draft {
  /** The revision the work began from. */
  readonly revision: number
  readonly document: unknown
}

const key = (partId: string): string => `lathica.draft.${partId}`

export function keepDraft(partId: string, draft: Draft): void {
  try {
    localStorage.setItem(key(partId), JSON.stringify(draft))
  } catch {
    // A full or forbidden store costs only this second line of defence; saving goes on.
  }
}

export function readDraft(partId: string): Draft | undefined {
  try {
    const text = localStorage.getItem(key(partId))
    const draft = text === null ? undefined : (JSON.parse(text) as Partial<Draft> | null)
    return typeof draft?.revision === 'number' ? (draft as Draft) : undefined
  } catch {
    return undefined
  }
}

export function dropDraft(partId: string): void {
  try {
    localStorage.removeItem(key(partId))
  } catch {
    // As above: nothing depends on it.
  }
}
