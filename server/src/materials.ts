import type { Material } from '@lathica/core/part'
import type { Knex } from 'knex'
import { patiently, type Write } from './database/writing'

/** Materials of one's own. Parts hold copies of what they use, so that a part file is whole. */
export interface MaterialLibrary {
  list(): Promise<Material[]>
  /** Adds a material, or changes the one of its id. */
  put(material: Material): Promise<void>
  remove(id: string): Promise<boolean>
}

export function createMaterialLibrary(database: Knex, write: Write = patiently): MaterialLibrary {
  const rows = () => database<Material>('materials')
  return {
    list: () => rows().select('id', 'name', 'density', 'colour', 'look').orderBy('name'),
    async put(material) {
      await write(() => rows().insert(material).onConflict('id').merge())
    },
    async remove(id) {
      return (await write(() => rows().where({ id }).delete())) > 0
    },
  }
}
