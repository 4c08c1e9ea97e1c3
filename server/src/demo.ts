import { readFile, readdir } from 'node:fs/promises'
import { join } from 'node:path'
import type { Knex } from 'knex'
import type { Logger } from 'pino'
import { readPartFile, toDocument } from '@lathica/core/formats'
import { storable } from './partText'
import { createRepository } from './repository'

const DEMO_PROJECT = 'Skerry Point tide gauge'

/** Fills an empty database with the demo project's part files; one that holds projects is left. */
export async function loadDemo(database: Knex, folder: string, log: Logger): Promise<void> {
  const repository = createRepository(database)
  if ((await repository.listProjects()).length > 0) return
  const project = await repository.createProject(DEMO_PROJECT)
  const files = (await readdir(folder)).filter((f) => f.endsWith('.lathica.json')).sort()
  for (const file of files) {
    const read = readPartFile(await readFile(join(folder, file), 'utf8'))
    if (read.ok) await repository.createPart(project, storable(toDocument(read.value)))
    else log.warn({ file, problem: read.problem }, 'demo part left out')
  }
}
