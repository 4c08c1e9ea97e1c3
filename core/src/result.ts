/** A half-open range of characters in a text, counted from 0. */
export interface TextRange {
  readonly from: number
  readonly to: number
}

/** What went wrong, as a value: a stable code, one sentence, and what would mend it. */
export interface Problem {
  readonly code: string
  readonly message: string
  readonly mend: string
  /** Where in the text that was read, if a text was read. */
  readonly at?: TextRange
  /** Ids of the entities, constraints, sizes or steps concerned. */
  readonly involves?: readonly string[]
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem }

export function succeed<T>(value: T): Result<T> {
  return { ok: true, value }
}

export function fail(
  code: string,
  message: string,
  mend: string,
  extra: Pick<Problem, 'at' | 'involves'> = {},
): { readonly ok: false; readonly problem: Problem } {
  return { ok: false, problem: { code, message, mend, ...extra } }
}
