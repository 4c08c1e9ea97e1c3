import {
  leftNormal,
  lengthOf,
  pointAt,
  PART_FRAME,
  place,
  type Piece,
  type Vec,
} from '@lathica/core/geometry'
import { landOf, noteStates, threadLength, type NoteState } from '@lathica/core/notes'
import type { NoteKind } from '@lathica/core/part'
import type { ThreadCircle } from '@lathica/core/route'
import { edgesOf } from '@lathica/core/section'
import { readThread } from '@lathica/core/standards'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { NOTE_ORDER } from '../notes/kinds'
import { usePartStore } from './part'

/** Where a thread runs on the half-section: along its root, and where it ends before its land does. */
export interface ThreadLine {
  readonly from: Vec
  readonly to: Vec
  readonly end: readonly [Vec, Vec] | undefined
}

/** What is said of the part's faces, and which of it is shown. */
export const useNotesStore = defineStore('notes', () => {
  const parts = usePartStore()
  /** The note whose card is open. */
  const noteId = ref<string>()
  /** Kinds that are not shown on the board; kept in the browser. */
  const hidden = useStorage<NoteKind[]>('lathica.hiddenNotes', [])

  const states = computed<readonly NoteState[]>(() =>
    parts.followed ? noteStates(parts.followed) : [],
  )
  const open = computed(() => states.value.find((s) => s.note.id === noteId.value))
  const shown = computed(() => states.value.filter((s) => !hidden.value.includes(s.note.kind)))

  /** Hides every kind of note, or shows them all. */
  function toggleAll(): void {
    hidden.value = hidden.value.length === 0 ? [...NOTE_ORDER] : []
  }
  function toggle(kind: NoteKind): void {
    hidden.value = hidden.value.includes(kind)
      ? hidden.value.filter((k) => k !== kind)
      : [...hidden.value, kind]
  }

  /** Where each note stands: in the middle of the longest piece of its face. */
  const marks = computed(() =>
    shown.value.flatMap((state) => {
      const [first, ...more] = state.edges
      if (!first) return []
      const longest = more.reduce((a, b) => (lengthOf(b.piece) > lengthOf(a.piece) ? b : a), first)
      const inwards = leftNormal(longest.piece, 0.5)
      return [
        {
          ...{ at: pointAt(longest.piece, 0.5), out: { x: -inwards.x, y: -inwards.y } },
          ...{ words: state.words, note: state.note, wrong: state.problem !== undefined },
        },
      ]
    }),
  )

  /** The note whose card is open, where it stands. */
  const inHand = computed(() => marks.value.filter((m) => m.note.id === noteId.value))

  /** Faces that are treated, piece by piece. */
  const zones = computed<readonly Piece[]>(() =>
    shown.value.flatMap((s) => (s.note.kind === 'treatment' ? s.edges.map((e) => e.piece) : [])),
  )

  const threads = computed(() =>
    shown.value.flatMap(({ note, edges, problem }) => {
      const { part } = parts
      const land = landOf(edges)
      if (note.kind !== 'thread' || problem || !land || !part) return []
      const read = readThread(note.callout)
      if (!read.ok) return []
      const outside = land.side === 'outside'
      const length = threadLength(note, part) ?? land.to - land.from
      const [from, to] =
        note.from === 'left' ? [land.from, land.from + length] : [land.to - length, land.to]
      const depth = (read.value.major - read.value.minor) / 2
      const radius = outside ? land.radius - depth : land.radius + depth
      return [
        {
          body: note.body,
          land,
          outside,
          from,
          to,
          radius,
          whole: length >= land.to - land.from - 1e-9,
          left: note.from === 'left',
        },
      ]
    }),
  )

  /** As they are drawn on the half-section (ISO 6410-1): a thin line along the root, a thick one where the thread ends. */
  const lines = computed<readonly ThreadLine[]>(() =>
    threads.value.map(({ land, from, to, radius, whole, left }) => {
      const end = left ? to : from
      return {
        ...{ from: { x: from, y: radius }, to: { x: to, y: radius } },
        end: whole
          ? undefined
          : [
              { x: end, y: radius },
              { x: end, y: land.radius },
            ],
      }
    }),
  )

  /** As they are seen along the axis, from an end that nothing larger stands before. */
  const circles = computed<readonly ThreadCircle[]>(() =>
    threads.value.flatMap(({ body, land, from, to, radius, outside }) => {
      const section = parts.followed?.bodies.find((b) => b.bodyId === body)?.section
      if (!section) return []
      const ends = edgesOf(section).flatMap(({ piece }) => [piece.from, piece.to])
      const isOpen = (beyond: (x: number) => boolean): boolean =>
        outside
          ? ends.every((p) => !beyond(p.x) || p.y <= land.radius + 1e-9)
          : ends.every((p) => !beyond(p.x) || p.y >= land.radius - 1e-9 || p.y < 1e-9)
      const circle = (x: number, z: 1 | -1): ThreadCircle => ({
        ...{ body, radius, through: false },
        frame: { ...PART_FRAME, at: place(0, 0, x), z: place(0, 0, z) },
      })
      return [
        ...(isOpen((x) => x < land.from - 1e-9) ? [circle(from, 1)] : []),
        ...(isOpen((x) => x > land.to + 1e-9) ? [circle(to, -1)] : []),
      ]
    }),
  )

  return {
    noteId,
    hidden,
    states,
    open,
    shown,
    toggle,
    toggleAll,
    marks,
    inHand,
    zones,
    lines,
    circles,
  }
})
