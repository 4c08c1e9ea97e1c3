import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { storedPart, toDocument, type Part } from '@lathica/core'
import { summarise, type PartSummary } from './summary'

export interface ProjectCard {
  readonly id: string
  readonly name: string
  readonly updatedAt: string
  readonly parts: readonly PartCard[]
}

export interface PartCard {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly updatedAt: string
  /** Null where what is stored is damaged: then the part can only be taken out as it is. */
  readonly summary: PartSummary | null
}

export interface StoredPart {
  readonly id: string
  readonly projectId: string
  readonly projectName: string
  readonly revision: number
  readonly updatedAt: string
  readonly document: unknown
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

/** A part whose document would not come back as it is: it is not stored. */
export class UnstorablePart extends Error {}

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
  createPart(projectId: string, part: Part): Promise<{ id: string; revision: number } | undefined>
  /** @throws DamagedPart when its document is none */
  readPart(id: string): Promise<StoredPart | undefined>
  /** What is stored of a part, whatever it is. */
  rawPart(id: string): Promise<{ readonly name: string; readonly text: string } | undefined>
  savePart(id: string, revision: number, part: Part): Promise<SaveOutcome>
  setPartDeleted(id: string, deleted: boolean): Promise<boolean>
}

/** Reads and writes projects and parts. Deleted ones are only marked, so that they can come back. */
export function createRepository(
  database: Knex,
  /** Told of every part that is written. */
  onWritten: (id: string, summary: PartSummary) => void = () => undefined,
): Repository {
  const projects = () => database<ProjectRow>('projects')
  const parts = () => database<PartRow>('parts')
  const now = (): string => new Date().toISOString()
  const content = (part: Part, summary: PartSummary) => ({
    name: part.name,
    document: textOf(part),
    summary: JSON.stringify(summary),
  })
  const touchProject = (id: string, at: string) =>
    projects().where({ id }).update({ updated_at: at })

  return {
    async listProjects() {
      const [projectRows, partRows] = await Promise.all([
        projects().whereNull('deleted_at').orderBy('created_at'),
        parts()
          .whereNull('deleted_at')
          .select('id', 'project_id', 'name', 'revision', 'updated_at', 'summary')
          .select<ListedRow[]>(database.raw('json_valid(document) as sound'))
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
      await projects().insert(row)
      return row.id
    },

    async renameProject(id, name) {
      const live = projects().where({ id }).whereNull('deleted_at')
      return (await live.update({ name, updated_at: now() })) > 0
    },

    async setProjectDeleted(id, deleted) {
      return (
        (await projects()
          .where({ id })
          .update({ deleted_at: deleted ? now() : null })) > 0
      )
    },

    async hasProject(id) {
      return (await projects().where({ id }).whereNull('deleted_at').first()) !== undefined
    },

    async createPart(projectId, part) {
      const project = await projects().where({ id: projectId }).whereNull('deleted_at').first()
      if (!project) return undefined
      const at = now()
      const id = randomUUID()
      const summary = summarise(part)
      await parts().insert({
        ...content(part, summary),
        id,
        project_id: projectId,
        revision: 1,
        created_at: at,
        updated_at: at,
      })
      await touchProject(projectId, at)
      onWritten(id, summary)
      return { id, revision: 1 }
    },

    async readPart(id) {
      const row = await parts().where({ id }).whereNull('deleted_at').first()
      if (!row) return undefined
      const project = await projects().where({ id: row.project_id }).first()
      return {
        id: row.id,
        projectId: row.project_id,
        projectName: project?.name ?? '',
        revision: row.revision,
        updatedAt: row.updated_at,
        document: parsed(row.document) ?? damaged(row.name),
      }
    },

    async rawPart(id) {
      const row = await parts().where({ id }).whereNull('deleted_at').first('name', 'document')
      return row && { name: row.name, text: row.document }
    },

    async savePart(id, revision, part) {
      const at = now()
      const summary = summarise(part)
      // The revision is part of the condition, so that of two writers only one can win.
      const changed = await parts()
        .where({ id, revision })
        .whereNull('deleted_at')
        .update({ ...content(part, summary), revision: revision + 1, updated_at: at })
      const row = await parts()
        .where({ id })
        .whereNull('deleted_at')
        .first('revision', 'project_id')
      if (!row) return { outcome: 'missing' }
      if (changed === 0) return { outcome: 'stale', revision: row.revision }
      await touchProject(row.project_id, at)
      onWritten(id, summary)
      return { outcome: 'saved', revision: revision + 1, updatedAt: at }
    },

    async setPartDeleted(id, deleted) {
      return (
        (await parts()
          .where({ id })
          .update({ deleted_at: deleted ? now() : null })) > 0
      )
    },
  }
}

/** A row of the shelf. */
interface ListedRow extends Pick<
  PartRow,
  'id' | 'project_id' | 'name' | 'revision' | 'updated_at' | 'summary'
> {
  /** 1 where the document is JSON. */
  readonly sound: number
}

/** The text of a part's document, once it was seen to come back as it is. @throws UnstorablePart */
function textOf(part: Part): string {
  const text = JSON.stringify(toDocument(part))
  const read = storedPart(JSON.parse(text))
  if (!read.ok) throw new UnstorablePart(read.problem.message)
  if (JSON.stringify(toDocument(read.value)) !== text) {
    throw new UnstorablePart('It would come back as something else.')
  }
  return text
}

function damaged(name: string): never {
  throw new DamagedPart(name)
}

/** What a text in JSON says; undefined where it is none. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown
  } catch {
    return undefined
  }
}

function toCard(row: ListedRow): PartCard {
  return {
    id: row.id,
    name: row.name,
    revision: row.revision,
    updatedAt: row.updated_at,
    summary: row.sound === 1 ? ((parsed(row.summary) ?? null) as PartSummary | null) : null,
  }
}
