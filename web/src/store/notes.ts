import { PART_FRAME, place, type Piece, type Vec } from '@lathica/core/geometry'
import { landOf, noteStates, threadReach, type NoteState } from '@lathica/core/notes'
import type { NoteKind } from '@lathica/core/part'
import { callsOf, type ThreadCircle } from '@lathica/core/route'
import { edgesOf } from '@lathica/core/section'
import { KNURLS, readThread } from '@lathica/core/standards'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { wordCells } from '../notes/kind'
import { cellsOf } from '../board/paint/notePlate'
import type { KnurlBand, NoteMark, ThreadLine } from '../board/paint/scene'
import type { SaidFace } from '../solid/saidLines'
import { NOTE_ORDER, looksOf } from '../notes/kinds'
import { usePartStore } from './part'

/** The body that a face is of. */
interface On {
  readonly body: string
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

  /** Where each note stands, and what steps say of themselves. */
  const marks = computed<readonly NoteMark[]>(() => [
    ...shown.value.flatMap(({ note, words, foot, problem }): NoteMark[] => {
      if (!foot || looksOf(note.kind).isSilent) return []
      const label = moved.value?.id === note.id ? moved.value.label : note.label
      const cells = cellsOf(note, words)
      return [{ id: note.id, ...foot, cells, label, wrong: problem !== undefined }]
    }),
    ...calls.value.map(({ at, out, words }): NoteMark => ({
      ...{ id: undefined, at, out, cells: wordCells(words), label: undefined, wrong: false },
    })),
  ])
  /** What is dragged, and where to. */
  const moved = ref<{ readonly id: string; readonly label: Vec }>()
  /** What steps say of themselves goes with the last of the notes. */
  const calls = computed(() => {
    const none = hidden.value.length >= NOTE_ORDER.length
    return parts.followed && !none ? callsOf(parts.followed) : []
  })

  /** The note whose card is open, where it stands. */
  const inHand = computed(() => {
    const { note, words, foot } = open.value ?? {}
    const body = note?.body ?? ''
    return note && foot && words !== undefined ? [{ ...foot, body, words, on: note.on }] : []
  })

  /** Faces that are treated, piece by piece. */
  const zones = computed<readonly Piece[]>(() =>
    shown.value.flatMap((s) => (s.note.kind === 'treatment' ? s.edges.map((e) => e.piece) : [])),
  )

  const knurls = computed<readonly KnurlBand[]>(() =>
    shown.value.flatMap(({ note, edges, problem }) => {
      const land = landOf(edges)
      if (note.kind !== 'knurl' || problem || !land) return []
      const { lines: angles } = KNURLS[note.form]
      const [from, to] = [land.from, land.to].map((x) => ({ x, y: land.radius }))
      return from && to ? [{ from, to, angles, pitch: Number(note.pitch) }] : []
    }),
  )

  const threads = computed(() =>
    shown.value.flatMap(({ note, edges, problem }) => {
      const { part } = parts
      const land = landOf(edges)
      if (note.kind !== 'thread' || problem || !land || !part) return []
      const read = readThread(note.callout)
      if (!read.ok) return []
      const outside = land.side === 'outside'
      const [from, to] = threadReach(note, land, part)
      const depth = (read.value.major - read.value.minor) / 2
      const radius = outside ? land.radius - depth : land.radius + depth
      return [
        {
          body: note.body,
          on: note.on,
          land,
          pitch: read.value.pitch,
          lead: read.value.lead,
          handed: read.value.left ? -1 : 1,
          outside,
          from,
          to,
          radius,
          whole: to - from >= land.to - land.from - 1e-9,
          left: note.from === 'left',
        },
      ]
    }),
  )

  /** Faces that are seen otherwise on the solid, by their bodies: coloured, threaded, knurled. */
  const saidFaces = computed<ReadonlyMap<string, readonly SaidFace[]>>(() => {
    const lands = threads.value.map(({ body, on, from, to, land, pitch, lead, handed }) => {
      // A line of a thread climbs by its lead in one turn.
      const angle = handed * Math.atan((2 * Math.PI * land.radius) / lead)
      const families = [{ angle, many: Math.round(lead / pitch) }]
      return { body, on, lines: { from, to, radius: land.radius, families, pitch } }
    })
    const others = shown.value.flatMap(({ note, edges, problem }): (SaidFace & On)[] => {
      const { body, on } = note
      if (problem) return []
      if (note.kind === 'colour') {
        return [{ body, on, colour: { of: note.colour, finish: note.finish } }]
      }
      const land = landOf(edges)
      if (note.kind !== 'knurl' || !land) return []
      const pitch = Number(note.pitch)
      const families = KNURLS[note.form].lines.map((degrees) => ({
        angle: (degrees * Math.PI) / 180,
        many: Math.round((2 * Math.PI * land.radius * Math.cos((degrees * Math.PI) / 180)) / pitch),
      }))
      return [{ body, on, lines: { ...land, families, pitch } }]
    })
    const byBody = new Map<string, SaidFace[]>()
    for (const { body, ...face } of [...lands, ...others]) {
      byBody.set(body, [...(byBody.get(body) ?? []), face])
    }
    return byBody
  })

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
    moved,
    marks,
    inHand,
    zones,
    knurls,
    lines,
    saidFaces,
    circles,
  }
})
