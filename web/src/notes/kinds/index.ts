import type { Note, NoteKind } from '@lathica/core/part'
import type { AllNoteLooks, NoteLooks } from '../kind'
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

/** How every kind of note is shown: a new one is a file beside these and a line here. */
export const NOTE_LOOKS: AllNoteLooks = {
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

/** The looks of whatever kind a note is. */
export const looksOf = (kind: Note['kind']): NoteLooks => NOTE_LOOKS[kind] as NoteLooks

export const NOTE_ORDER = Object.keys(NOTE_LOOKS) as NoteKind[]
