import type { Problem } from '@lathica/core/result'

/** What the kernel's thread answers: a value, or why not and at which operation of the plan. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problem: Problem; readonly after: number | undefined }
