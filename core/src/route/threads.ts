import { inFrame, place, type Place } from '../geometry'
import type { CallOut, PartState, ThreadCircle } from './state'

/** Chords of the three quarters of a circle that stand for a thread. */
const CHORDS = 36
/** It stands this share of its radius before the face, to be seen. */
const BEFORE = 0.01

/** The threads of the bodies as they stand after so many steps, all while not told. */
export function threadsOf(state: PartState, count = state.steps.length): readonly ThreadCircle[] {
  return state.steps.slice(0, count).flatMap((s) => (s.status === 'done' ? s.threads : []))
}

/** What steps say of themselves on every drawing, as the bodies stand after so many steps. */
export function callsOf(state: PartState, count = state.steps.length): readonly CallOut[] {
  return state.steps.slice(0, count).flatMap((s) => (s.status === 'done' ? s.calls : []))
}

/** A thread seen along its axis, three quarters of its circle (ISO 6410-1), in mm. */
export function threadArc({ frame, radius }: ThreadCircle): readonly Place[] {
  return Array.from({ length: CHORDS + 1 }, (_, i) => {
    const angle = Math.PI / 2 + (1.5 * Math.PI * i) / CHORDS
    return inFrame(
      frame,
      place(radius * Math.cos(angle), radius * Math.sin(angle), -BEFORE * radius),
    )
  })
}
