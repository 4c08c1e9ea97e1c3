import type { IconName } from '../icons/paths'
import type { ToolId } from '../board/tools'

/** The pages of the tool pad. */
export type Page = 'draw' | 'edit' | 'tie' | 'turn' | 'mill' | 'note'

/** Something the designer can do by key, by the pad or by the command search. */
export interface Action {
  readonly id: string
  readonly label: string
  /** What it does, in a sentence for the pad and the list of keys. */
  readonly help: string
  /** The key as it is pressed; letters of the pad stand for their place there. */
  readonly key?: string
  readonly icon?: IconName
  /** The pages of the pad it stands on. */
  readonly pages?: readonly Page[]
  readonly tool?: ToolId
  readonly enabled?: () => boolean
  /** True while it would act on what is picked at once. */
  readonly fits?: () => boolean
  /** True where it runs again while its key is held down. */
  readonly repeats?: true
  readonly run: () => void
}

/** The 15 places of the pad, as the left hand finds them. */
export const PAD_KEYS = ['q', 'w', 'e', 'r', 't', 'a', 's', 'd', 'f', 'g', 'z', 'x', 'c', 'v', 'b']
