import { succeed, type Result } from '../result'
import { perform, type Command } from './command'
import type { Part } from '../part'

interface Entry {
  readonly label: string
  /** The part as it was before the labelled edit. */
  readonly part: Part
}

/** A part with the way back and the way forth. */
export interface History {
  readonly part: Part
  readonly past: readonly Entry[]
  readonly future: readonly Entry[]
}

/** Older edits than these are forgotten. */
const LONGEST_PAST = 500

export function createHistory(part: Part): History {
  return { part, past: [], future: [] }
}

/** Runs a command and keeps the way back; an edit that changes nothing leaves no entry. */
export function edit(history: History, command: Command): Result<History> {
  const result = perform(history.part, command)
  return result.ok ? succeed(record(history, command.label, result.value)) : result
}

/** Takes a part that came about by an edit already run, such as a finished drag. */
export function record(history: History, label: string, part: Part): History {
  if (part === history.part) return history
  const past = [...history.past, { label, part: history.part }].slice(-LONGEST_PAST)
  return { part, past, future: [] }
}

export function undo(history: History): History {
  const last = history.past.at(-1)
  if (!last) return history
  return {
    part: last.part,
    past: history.past.slice(0, -1),
    future: [{ label: last.label, part: history.part }, ...history.future],
  }
}

export function redo(history: History): History {
  const [next, ...future] = history.future
  if (!next) return history
  return {
    part: next.part,
    past: [...history.past, { label: next.label, part: history.part }],
    future,
  }
}
