import type { Command } from '@lathica/core/edit'
import type { Cell, NoteState } from '@lathica/core/notes'
import type { Note, NoteKind, Part } from '@lathica/core/part'
import type { UnitSettings } from '@lathica/core/units'
import type { IconName } from '../icons/paths'

/** What a note's card is made with. */
export interface NoteSetting {
  readonly state: NoteState
  readonly units: UnitSettings
  readonly lie: Part['lie']
  /** The part as it is without what is being dragged. */
  readonly part: Part
}

/** A field of a note's card: what is typed, or chosen from a list. */
export type NoteField = {
  readonly id: string
  readonly label: string
  /** What it changes of the note. */
  readonly take: (value: string) => object
} & (
  | {
      readonly kind: 'typed'
      readonly text: string
      /** What an empty field means, or an example. */
      readonly empty?: string
      /** What is offered to be typed. */
      readonly offers?: readonly string[]
      readonly said?: string
      readonly longest?: number
    }
  | {
      readonly kind: 'colour'
      readonly value: string
    }
  | {
      readonly kind: 'choice'
      readonly value: string
      readonly options: readonly { readonly value: string; readonly label: string }[]
    }
)

/** Something that is done for a note: a step put in, a size changed. */
export interface NoteWork {
  readonly label: string
  readonly command: Command
  /** The problem that it mends; always offered where this is left out. */
  readonly mends?: string
}

/** How a kind of note is put in and shown: on the pad, on its card and on the board. */
export interface NoteLooks<N extends Note = Note> {
  readonly title: string
  /** Its place on the pad’s page of notes. */
  readonly key: string
  readonly icon: IconName
  readonly help: string
  /** What is to be clicked for it. */
  readonly hint: string
  fields(note: N, setting: NoteSetting): readonly NoteField[]
  /** What is known of it, beside what is typed. */
  figures?(note: N, setting: NoteSetting): readonly (readonly [string, string])[]
  /** What can be done for it with one press. */
  works?(note: N, setting: NoteSetting): readonly NoteWork[]
  /** Whether it is seen on the solid only, and has no plate on the board. */
  readonly isSilent?: true
}

export type AllNoteLooks = {
  readonly [K in NoteKind]: NoteLooks<Extract<Note, { readonly kind: K }>>
}

/** Choices with the words themselves for labels. */
export const plain = (
  words: readonly string[],
): readonly { readonly value: string; readonly label: string }[] =>
  words.map((value) => ({ value, label: value }))

/** Words longer than this are cut short on the board; the card has them whole. */
const LONGEST = 34

/** Words in one cell. */
export const wordCells = (words: string): readonly Cell[] => [
  { words: words.length > LONGEST ? `${words.slice(0, LONGEST - 1)}…` : words },
]
