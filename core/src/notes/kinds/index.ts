import type { NoteKinds } from '../kind'
import { datum } from './datum'
import { frame } from './frame'
import { surface } from './surface'
import { text } from './text'
import { thread } from './thread'
import { treatment } from './treatment'

/** Every kind of note: a new one is a file beside these and a line here. */
export const NOTE_KINDS: NoteKinds = { thread, datum, frame, surface, treatment, text }
