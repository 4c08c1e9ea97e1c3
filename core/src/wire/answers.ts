import type { PartSummary } from '../inspect'
import type { Problem } from '../result'

/** A project on the shelf. */
export interface ProjectCard {
  readonly id: string
  readonly name: string
  readonly updatedAt: string
  readonly parts: readonly PartCard[]
}

/** A part on the shelf. */
export interface PartCard {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly updatedAt: string
  /** What is stored is damaged: the part can only be taken out as it is. */
  readonly damaged: boolean
  /** Null while it has not been made, and of what is damaged. */
  readonly summary: PartSummary | null
}

/** A part as it is stored. */
export interface PartAnswer {
  readonly id: string
  readonly projectId: string
  readonly projectName: string
  readonly revision: number
  readonly updatedAt: string
  readonly document: unknown
}

/** A release in the list of them. */
export interface ReleaseCard {
  readonly mark: string
  readonly words: string
  readonly at: string
}

/** A drawing as it was released: its part, and every sheet as SVG. */
export interface ReleaseAnswer extends ReleaseCard {
  readonly document: unknown
  readonly sheets: readonly string[]
}

/** How far a job has come. */
export interface JobProgress {
  readonly done: number
  readonly of: number
  /** What is being done, in words. */
  readonly words: string
}

/** A job of the server as it is told to whoever asks. */
export interface JobAnswer {
  readonly id: string
  readonly kind: 'export' | 'import'
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
  readonly progress: JobProgress
  /** What is worth saying of a job that is done. */
  readonly notes: readonly string[]
  /** Of a job that failed. */
  readonly problem?: Problem
  /** The file that can be fetched, of an export that is done; its size in bytes. */
  readonly file?: { readonly name: string; readonly size: number }
  /** The part that was made, of an import that is done. */
  readonly partId?: string
}
