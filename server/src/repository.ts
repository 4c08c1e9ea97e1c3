import { randomUUID } from 'node:crypto'
import type { PartSummary } from '@lathica/core/inspect'
import type { PartAnswer, PartCard, ProjectCard } from '@lathica/core/wire'
import type { Knex } from 'knex'
import { patiently, type Write } from './database/writing'
import type { PartText } from './partText'

/** A part as it lies in the database: its document still as text. */
export interface StoredPart extends Omit<PartAnswer, 'document'> {
  readonly name: string
  /** The document, in JSON. */
  readonly text: string
}

interface ProjectRow {
  id: string
  name: string
  created_at: string
  updated_at: string
  deleted_at: string | null
}

interface PartRow extends ProjectRow {
  project_id: string
  revision: number
  document: string
  summary: string
}

/** What is stored of a part is damaged, and can only be taken out as it is. */
export class DamagedPart extends Error {
  constructor(readonly called: string) {
    super(`the document of ${called} is damaged`)
  }
}

/** What saving came to: a new revision, or the one that stands in the way. */
export type SaveOutcome =
  | { readonly outcome: 'saved'; readonly revision: number; readonly updatedAt: string }
  | { readonly outcome: 'stale'; readonly revision: number }
  | { readonly outcome: 'missing' }

export interface Repository {
  listProjects(): Promise<ProjectCard[]>
  createProject(name: string): Promise<string>
  renameProject(id: string, name: string): Promise<boolean>
  setProjectDeleted(id: string, deleted: boolean): Promise<boolean>
  hasProject(id: string): Promise<boolean>
  createPart(
    projectId: string,
    part: PartText,
  ): Promise<{ id: string; revision: number } | undefined>
  /** @throws DamagedPart when its document is none */
  readPart(id: string): Promise<StoredPart | undefined>
  /** What is stored of a part, whatever it is. */
  rawPart(id: string): Promise<{ readonly name: string; readonly text: string } | undefined>
  savePart(id: string, revision: number, part: PartText): Promise<SaveOutcome>
  setPartDeleted(id: string, deleted: boolean): Promise<boolean>
}

/** Reads and writes projects and parts. Deleted ones are only marked, so that they can come back. */
export function createRepository(
  database: Knex,
  /** Told of every part that is written: its summary is that of an earlier revision. */
  onWritten: (id: string) => void = () => undefined,
  write: Write = patiently,
): Repository {
  const projects = () => database<ProjectRow>('projects')
  const parts = () => database<PartRow>('parts')
  const now = (): string => new Date().toISOString()
  /** What is written together waits for the disk once, and is there all or not at all. */
  const together = <T>(work: (within: Knex.Transaction) => Promise<T>): Promise<T> =>
    write(async () => {
      let cause: unknown
      const tried = (within: Knex.Transaction): Promise<T> =>
        work(within).catch((error: unknown) => {
          cause = error
          throw error
        })
      // On a full disk nothing is left to be taken back, and that is told instead of the reason.
      return database.transaction(tried).catch((error: unknown) => {
        throw cause ?? error
      })
    })
  const setDeleted = async (rows: () => Knex.QueryBuilder, deleted: boolean): Promise<boolean> =>
    ((await write(() => rows().update({ deleted_at: deleted ? now() : null }))) as number) > 0

  return {
    async listProjects() {
      const [projectRows, partRows] = await Promise.all([
        projects().whereNull('deleted_at').orderBy('created_at'),
        parts()
          .whereNull('deleted_at')
          .select('id', 'project_id', 'name', 'revision', 'updated_at', 'summary')
          .select<ListedRow[]>(database.raw(SOUND))
          .orderBy('created_at'),
      ])
      return projectRows.map((project) => ({
        id: project.id,
        name: project.name,
        updatedAt: project.updated_at,
        parts: partRows.filter((p) => p.project_id === project.id).map(toCard),
      }))
    },

    async createProject(name) {
      const row = { id: randomUUID(), name, created_at: now(), updated_at: now() }
      await write(() => projects().insert(row))
      return row.id
    },

    async renameProject(id, name) {
      const live = () => projects().where({ id }).whereNull('deleted_at')
      return (await write(() => live().update({ name, updated_at: now() }))) > 0
    },

    setProjectDeleted: (id, deleted) => setDeleted(() => projects().where({ id }), deleted),

    async hasProject(id) {
      return (await projects().where({ id }).whereNull('deleted_at').first()) !== undefined
    },

    async createPart(projectId, part) {
      const project = await projects().where({ id: projectId }).whereNull('deleted_at').first()
      if (!project) return undefined
      const at = now()
      const id = randomUUID()
      const row = {
        ...{ id, project_id: projectId, revision: 1, created_at: at, updated_at: at },
        ...{ name: part.name, document: part.text, summary: 'null' },
      }
      await together(async (within) => {
        await within('parts').insert(row)
        await within('projects').where({ id: projectId }).update({ updated_at: at })
      })
      onWritten(id)
      return { id, revision: 1 }
    },

    async readPart(id) {
      const row = await parts()
        .where({ id })
        .whereNull('deleted_at')
        .select('id', 'project_id', 'name', 'revision', 'updated_at', 'document')
        .select<ReadRow[]>(database.raw(SOUND))
        .then(([only]) => only)
      if (!row) return undefined
      if (row.sound !== 1) throw new DamagedPart(row.name)
      const project = await projects().where({ id: row.project_id }).first()
      return {
        id: row.id,
        projectId: row.project_id,
        projectName: project?.name ?? '',
        revision: row.revision,
        updatedAt: row.updated_at,
        name: row.name,
        text: row.document,
      }
    },

    async rawPart(id) {
      const row = await parts().where({ id }).whereNull('deleted_at').first('name', 'document')
      return row && { name: row.name, text: row.document }
    },

    async savePart(id, revision, part) {
      const at = now()
      const outcome = await together(async (within): Promise<SaveOutcome> => {
        const live = () => within<PartRow>('parts').where({ id }).whereNull('deleted_at')
        // The revision is part of the condition, so that of two writers only one can win.
        const changed = await live()
          .where({ revision })
          .update({
            ...{ name: part.name, document: part.text },
            ...{ revision: revision + 1, updated_at: at },
          })
        const row = await live().first('revision', 'project_id')
        if (!row) return { outcome: 'missing' }
        if (changed === 0) return { outcome: 'stale', revision: row.revision }
        await within('projects').where({ id: row.project_id }).update({ updated_at: at })
        return { outcome: 'saved', revision: revision + 1, updatedAt: at }
      })
      if (outcome.outcome === 'saved') onWritten(id)
      return outcome
    },

    setPartDeleted: (id, deleted) => setDeleted(() => parts().where({ id }), deleted),
  }
}

/** 1 where a document is an object in JSON. */
const SOUND =
  "case when json_valid(document) then json_type(document) = 'object' else 0 end as sound"

/** A part as it is read. */
interface ReadRow extends Pick<
  PartRow,
  'id' | 'project_id' | 'name' | 'revision' | 'updated_at' | 'document'
> {
  readonly sound: number
}

/** A row of the shelf. */
interface ListedRow extends Pick<
  PartRow,
  'id' | 'project_id' | 'name' | 'revision' | 'updated_at' | 'summary'
> {
  readonly sound: number
}

function toCard(row: ListedRow): PartCard {
  const damaged = row.sound !== 1
  return {
    id: row.id,
    name: row.name,
    revision: row.revision,
    updatedAt: row.updated_at,
    damaged,
    summary: damaged ? null : summaryOf(row.summary),
  }
}

/** A summary that is damaged is as good as none: it is made again. */
function summaryOf(text: string): PartSummary | null {
  try {
    return JSON.parse(text) as PartSummary | null
  } catch {
    return null
  }
}
