import { keepCopy, type CopyKind } from '../database/copies'
import { connectTo } from '../database/open'

export interface KeepTask {
  readonly filename: string
  readonly kind: CopyKind
  readonly label: string
}

/** Keeps a copy of the database, by a connection of its own. @returns its path, if it was not there yet */
export async function keep({ filename, kind, label }: KeepTask): Promise<string | undefined> {
  const database = connectTo(filename)
  try {
    return await keepCopy(database, filename, kind, label)
  } finally {
    await database.destroy()
  }
}
