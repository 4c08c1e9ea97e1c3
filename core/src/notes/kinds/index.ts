import type { NoteKinds } from '../kind'
import { colour } from './colour'
import { datum } from './datum'
import { edge } from './edge'
import { frame } from './frame'
import { knurl } from './knurl'
import { mate } from './mate'
import { surface } from './surface'
import { text } from './text'
import { thread } from './thread'
import { treatment } from './treatment'

/** Every kind of note: a new one is a file beside these and a line here. */
export const NOTE_KINDS: NoteKinds = {
  thread,
  datum,
  frame,
  surface,
  edge,
  knurl,
  treatment,
  mate,
  colour,
  text,
}
