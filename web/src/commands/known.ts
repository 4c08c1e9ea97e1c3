import { useStorage } from '@vueuse/core'
import type { Action } from './action'

/** Used so often, a tool is known by its icon. */
const KNOWN = 3

/** When the pad writes a tool's name under its icon. */
export const NAMES = ['new', 'always', 'never'] as const
export type Names = (typeof NAMES)[number]

/** How often each action was used, and when names are written; kept in the browser. */
const used = useStorage<Record<string, number>>('lathica.used', {})
export const names = useStorage<Names>('lathica.names', 'new')

/** The same action, which counts how often it is used. */
export const counted = (action: Action): Action => ({
  ...action,
  run: () => {
    const before = used.value[action.id] ?? 0
    if (before < KNOWN) used.value = { ...used.value, [action.id]: before + 1 }
    action.run()
  },
})

/** Whether a tool's name is written under its icon: until it has been used a few times, unless told otherwise. */
export const isNamed = ({ id }: Action): boolean =>
  names.value === 'always' || (names.value === 'new' && (used.value[id] ?? 0) < KNOWN)

/** Names that need two lines on the pad, and where they part. */
const PARTED: Readonly<Record<string, string>> = {
  construction: 'construc\u00adtion',
  perpendicular: 'perpen\u00addicular',
  symmetric: 'symme\u00adtric',
  concentric: 'concen\u00adtric',
  rectangle: 'rect\u00adangle',
  reference: 'refer\u00adence',
}

/** A tool's name as it stands under its icon. */
export const shortName = ({ label }: Action): string => {
  const name = label.toLowerCase()
  return PARTED[name] ?? name
}
