/** Exit codes, as the usage text tells them. */
export const EXIT = { well: 0, unsound: 1, usage: 2, unreadable: 3, unwritten: 4 } as const

/** The streams a call writes to. */
export interface Streams {
  readonly stdout: { write(chunk: string | Uint8Array): unknown }
  /** A terminal is told how far the work is. */
  readonly stderr: { write(chunk: string | Uint8Array): unknown; readonly isTTY?: boolean }
}

/** Ends a call with a sentence and an exit code. */
export class Stop extends Error {
  constructor(
    readonly code: (typeof EXIT)[keyof typeof EXIT],
    message: string,
  ) {
    super(message)
  }
}
