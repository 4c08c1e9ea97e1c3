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

/** A file that a job has written. */
export interface JobFile {
  readonly name: string
  readonly type: string
  /** Where it lies until it is let go. */
  readonly path: string
  /** in bytes */
  readonly size: number
}
