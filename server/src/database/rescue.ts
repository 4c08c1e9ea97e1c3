import { existsSync, readFileSync } from 'node:fs'
import { openDatabase } from './open'
import { rawRows, type RawValue } from './rawRows'

/** What was saved out of a damaged database. */
export interface Rescue {
  readonly projects: number
  readonly parts: number
  readonly materials: number
  /** Parts whose document is torn: they are kept as they are, and shown as damaged. */
  readonly damaged: number
}

/** What parts are put into whose own project is lost. */
const ORPHANS = { id: 'rescued', name: 'Rescued parts' }

type Row = Readonly<Record<string, RawValue>>

/** The columns of each table, as `migrations.ts` makes them, and what tells its rows from others. */
const TABLES = {
  projects: {
    columns: ['id', 'name', 'created_at', 'updated_at', 'deleted_at'],
    isOne: (row: Row) => isMoment(row['created_at']) && isMoment(row['updated_at']),
  },
  parts: {
    columns: [
      ...['id', 'project_id', 'name', 'revision', 'document', 'summary'],
      ...['created_at', 'updated_at', 'deleted_at'],
    ],
    isOne: (row: Row) => isMoment(row['created_at']) && typeof row['document'] === 'string',
  },
  materials: {
    columns: ['id', 'name', 'density', 'colour', 'look'],
    isOne: (row: Row) =>
      typeof row['density'] === 'number' && /^#[0-9a-f]{6}$/.test(String(row['colour'])),
  },
  releases: {
    columns: [
      ...['id', 'part_id', 'mark', 'words', 'released_at'],
      ...['document', 'sheets', 'pdf'],
    ],
    isOne: (row: Row) => isMoment(row['released_at']) && typeof row['sheets'] === 'string',
  },
  title_blocks: {
    columns: ['name', 'document', 'updated_at'],
    isOne: (row: Row) => isMoment(row['updated_at']) && isJson(String(row['document'])),
  },
} as const

const isMoment = (value: RawValue | undefined): boolean =>
  typeof value === 'string' && /^\d{4}-\d\d-\d\dT[\d:.]+Z$/.test(value)

/**
 * Saves what can be read of a damaged database into a new one; the damaged one is left as it is. Of rows that its
 * pages hold more than once the latest counts.
 * @param from the damaged file; its write-ahead log beside it is read too
 * @param to the new file, which must not be there yet
 * @throws when there is nothing to read, or the new file is there, or cannot be written
 */
export async function rescueDatabase(from: string, to: string): Promise<Rescue> {
  if (existsSync(to)) throw new Error(`${to} is there already.`)
  const log = `${from}-wal`
  const found = latestRows(readFileSync(from), existsSync(log) ? readFileSync(log) : EMPTY)
  const { projects, parts, materials, releases } = found
  const database = await openDatabase(to)
  try {
    const orphans = parts.filter((p) => !projects.some((q) => q['id'] === p['project_id']))
    const now = new Date().toISOString()
    if (orphans.length > 0) projects.push({ ...ORPHANS, created_at: now, updated_at: now })
    const placed = parts.map((p) => ({
      ...p,
      ...(orphans.includes(p) ? { project_id: ORPHANS.id } : {}),
      // It is made anew.
      summary: 'null',
    }))
    for (const row of projects) await database('projects').insert(row)
    for (const row of placed) await database('parts').insert(row)
    for (const row of materials) await database('materials').insert(row)
    for (const row of found.title_blocks) await database('title_blocks').insert(row)
    // Of what is lost nothing is kept that could be shown.
    for (const row of releases.filter((r) => parts.some((p) => p['id'] === r['part_id']))) {
      await database('releases').insert(row)
    }
  } finally {
    await database.destroy()
  }
  const damaged = parts.filter((p) => !isJson(String(p['document']))).length
  return { projects: projects.length, parts: parts.length, materials: materials.length, damaged }
}

const EMPTY = new Uint8Array()

/** The rows of each table, each by its id once. */
function latestRows(file: Uint8Array, log: Uint8Array): Record<keyof typeof TABLES, Row[]> {
  const found = Object.fromEntries(
    Object.keys(TABLES).map((table) => [table, new Map<RawValue, Row>()]),
  ) as Record<keyof typeof TABLES, Map<RawValue, Row>>
  for (const values of rawRows(file, log)) {
    for (const [table, { columns, isOne }] of Object.entries(TABLES)) {
      if (values.length !== columns.length || typeof values[0] !== 'string') continue
      const row = Object.fromEntries(columns.map((name, i) => [name, values[i] ?? null]))
      if (!isOne(row)) continue
      const known = found[table as keyof typeof TABLES]
      const before = known.get(values[0])
      if (!before || isLater(row, before)) known.set(values[0], row)
    }
  }
  return {
    projects: [...found.projects.values()],
    parts: [...found.parts.values()],
    materials: [...found.materials.values()],
    releases: [...found.releases.values()],
    title_blocks: [...found.title_blocks.values()],
  }
}

function isLater(row: Row, before: Row): boolean {
  const [a, b] = [Number(row['revision'] ?? 0), Number(before['revision'] ?? 0)]
  return a === b ? String(row['updated_at']) > String(before['updated_at']) : a > b
}

function isJson(value: string): boolean {
  try {
    JSON.parse(value)
    return true
  } catch {
    return false
  }
}
