import { randomUUID } from 'node:crypto'
import type { ReleaseAnswer, ReleaseCard } from '@lathica/core/wire'
import type { Knex } from 'knex'
import { patiently, type Write } from './database/writing'

/** A release as it lies in the database: the part and its sheets as text, the PDF in base64. */
export interface StoredRelease {
  readonly mark: string
  readonly words: string
  readonly document: string
  readonly sheets: readonly string[]
  readonly pdf: string
}

/** What drawings were released as. They are kept as they were: none is changed, none is deleted. */
export interface Releases {
  list(part: string): Promise<ReleaseCard[]>
  read(part: string, mark: string): Promise<ReleaseAnswer | undefined>
  pdf(part: string, mark: string): Promise<Buffer | undefined>
  /** @returns whether it was kept; not where one of that mark is there already */
  keep(part: string, release: StoredRelease): Promise<boolean>
}

interface Row {
  id: string
  part_id: string
  mark: string
  words: string
  released_at: string
  document: string
  sheets: string
  pdf: string
}

export function createReleases(database: Knex, write: Write = patiently): Releases {
  const rows = () => database<Row>('releases')
  const one = (part: string, mark: string) => rows().where({ part_id: part, mark }).first()
  return {
    async list(part) {
      // Without what is large: documents, sheets and PDFs.
      const found = await rows()
        .where({ part_id: part })
        .orderBy('released_at')
        .select('mark', 'words', 'released_at')
      return found.map(({ mark, words, released_at }) => ({ mark, words, at: released_at }))
    },
    async read(part, mark) {
      const row = await one(part, mark)
      if (!row) return undefined
      const { words, released_at, document, sheets } = row
      return {
        ...{ mark, words, at: released_at },
        document: JSON.parse(document) as unknown,
        sheets: JSON.parse(sheets) as string[],
      }
    },
    async pdf(part, mark) {
      const row = await one(part, mark)
      return row && Buffer.from(row.pdf, 'base64')
    },
    async keep(part, { mark, words, document, sheets, pdf }) {
      const row: Row = {
        ...{ id: randomUUID(), part_id: part, mark, words, document, pdf },
        ...{ sheets: JSON.stringify(sheets), released_at: new Date().toISOString() },
      }
      const made = await write(() =>
        rows().insert(row).onConflict(['part_id', 'mark']).ignore().returning('id'),
      )
      return made.length > 0
    },
  }
}
