import type { Kind } from './kind'
import { booleans } from './sections/booleans'
import { layers } from './sections/layers'

/** All kinds of trials there are. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each kind reads its own cases only
export const KINDS: readonly Kind<any>[] = [booleans, layers]
