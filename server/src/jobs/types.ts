import type { Problem } from '@lathica/core/result'

/** Files of parts that are to be written, or a file that is to be made a part. */
export type JobTask =
  | {
      readonly kind: 'export'
      /** What the files are called together, if there are several. */
      readonly name: string
      readonly parts: readonly { readonly name: string; readonly document: string }[]
      /** As an exporter is called. */
      readonly format: string
      /** Of triangles, in mm. */
      readonly tolerance: number
    }
  | {
      readonly kind: 'import'
      readonly projectId: string
      readonly fileName: string
      /** Where what came lies until it has been read. */
      readonly path: string
    }

/** How far a job has come. */
export interface JobProgress {
  readonly done: number
  readonly of: number
  /** What is being done, in words. */
  readonly words: string
}

/** A file that a job has written. */
export interface JobFile {
  readonly name: string
  readonly type: string
  /** Where it lies until it is let go. */
  readonly path: string
  /** in bytes */
  readonly size: number
}

export type JobState = 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'

/** A job as it is told to whoever asks. */
export interface JobView {
  readonly id: string
  readonly kind: JobTask['kind']
  readonly state: JobState
  readonly progress: JobProgress
  /** What is worth saying of a job that is done. */
  readonly notes: readonly string[]
  /** Of a job that failed. */
  readonly problem?: Problem
  /** The file that can be fetched, of an export that is done. */
  readonly file?: { readonly name: string; readonly size: number }
  /** The part that was made, of an import that is done. */
  readonly partId?: string
}
