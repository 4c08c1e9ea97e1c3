import type { TitleBlock } from '@lathica/core/part'
import type { Knex } from 'knex'
import { patiently, type Write } from './database/writing'

/** Title blocks of one’s own, by their names. Parts hold copies of what they use, so that a part file is whole. */
export interface TitleBlockLibrary {
  list(): Promise<TitleBlock[]>
  /** Adds a block, or changes the one of its name. */
  put(block: TitleBlock): Promise<void>
  remove(name: string): Promise<boolean>
}

export function createTitleBlockLibrary(
  database: Knex,
  write: Write = patiently,
): TitleBlockLibrary {
  const rows = () =>
    database<{ name: string; document: string; updated_at: string }>('title_blocks')
  return {
    async list() {
      const kept = await rows().select('document').orderBy('name')
      return kept.map(({ document }) => JSON.parse(document) as TitleBlock)
    },
    async put(block) {
      const row = {
        ...{ name: block.name, document: JSON.stringify(block) },
        updated_at: new Date().toISOString(),
      }
      await write(() => rows().insert(row).onConflict('name').merge())
    },
    async remove(name) {
      return (await write(() => rows().where({ name }).delete())) > 0
    },
  }
}
