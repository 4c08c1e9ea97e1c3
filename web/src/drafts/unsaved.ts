import { shallowRef, type ShallowRef } from 'vue'
import type { PartAnswer } from '@lathica/core/wire'
import { newPart } from '../store/newPart'
import { sameDocument } from '../store/sameDocument'
import { draftsLeft, dropDraft, putBack, setAside, type Draft } from './drafts'
import { thisTab } from './tab'

/** The open part, as far as unsaved work needs it. */
interface Owner {
  readonly isOpen: (partId: string) => boolean
  /** Makes a draft the state of the part; false when it cannot be read, which is told. */
  readonly takeUp: (draft: Draft) => boolean
  /** Whether the browser has kept the part's present state, once it has tried. */
  readonly isKept: () => Promise<boolean>
}

/** Work on the open part that other visits could not save, for the designer to choose. */
export interface Unsaved {
  readonly drafts: ShallowRef<readonly Draft[]>
  /**
   * Work on a part that is on no server: this page's own, where it goes on from what is stored, and what is to be
   * offered. What the server has already is let go. New work of this page never takes the place of an offered one.
   */
  find(
    stored: PartAnswer,
  ): Promise<{ readonly own: Draft | undefined; readonly others: readonly Draft[] }>
  /** Takes up what another visit could not save; it stays where it is until it is kept as this page's own. */
  take(draft: Draft): Promise<void>
  /** Makes a draft a part of its own, and returns its id. */
  keepAsPart(draft: Draft, name: string): Promise<string | undefined>
  /** Lets a draft go; what is returned brings it back. */
  letGo(draft: Draft): Promise<() => Promise<void>>
}

export function createUnsaved({ isOpen, takeUp, isKept }: Owner): Unsaved {
  const drafts = shallowRef<readonly Draft[]>([])
  const withdraw = (draft: Draft): void => {
    drafts.value = drafts.value.filter((d) => d !== draft)
  }
  return {
    drafts,
    async find(stored) {
      const [tab, left] = [await thisTab(), await draftsLeft(stored.id)]
      const isSaved = (draft: Draft): boolean => sameDocument(draft.document, stored.document)
      await Promise.all(left.filter(isSaved).map(dropDraft))
      const unsaved = left.filter((draft) => !isSaved(draft))
      // What this page sent before it was loaded anew may be what is stored: then its draft goes on from that.
      const goesOn = ({ revision, sent = [] }: Draft): boolean =>
        revision === stored.revision || sent.some((one) => sameDocument(one, stored.document))
      const own = unsaved.find((d) => d.tab === tab && goesOn(d))
      const others = unsaved.filter((draft) => draft !== own)
      return {
        own,
        others: await Promise.all(others.map((d) => (d.tab === tab ? setAside(d) : d))),
      }
    },
    async take(draft) {
      if (!takeUp(draft)) return
      withdraw(draft)
      if (await isKept()) await dropDraft(draft)
    },
    async keepAsPart(draft, name) {
      const made = await newPart(draft.projectId, { ...draft.document, name: name.slice(0, 80) })
      if (made === undefined) return undefined
      withdraw(draft)
      await dropDraft(draft)
      return made
    },
    async letGo(draft) {
      withdraw(draft)
      await dropDraft(draft)
      return async () => {
        await putBack(draft)
        if (isOpen(draft.partId)) drafts.value = [...drafts.value, draft]
      }
    },
  }
}
