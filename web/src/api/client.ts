import type { Problem } from '@lathica/core/result'
import type { Material, TitleBlock } from '@lathica/core/part'
import type {
  ExportBody,
  JobAnswer,
  MaterialBody,
  NewPartBody,
  PartAnswer,
  ProjectBody,
  ProjectCard,
  ReleaseAnswer,
  ReleaseBody,
  ReleaseCard,
  SavePartBody,
} from '@lathica/core/wire'

/** An answer that did not come, or that says what went wrong. */
export class ApiError extends Error {
  constructor(
    /** The HTTP status, or 0 when the server could not be reached. */
    readonly status: number,
    readonly problem: Problem,
    /** For stale writes: the revision the server has. */
    readonly revision?: number,
  ) {
    super(problem.message)
  }
}

/** What stands in the way of some work, if anything; undefined once it is done. */
export async function refusalOf(work: () => Promise<void>): Promise<Problem | undefined> {
  try {
    await work()
    return undefined
  } catch (error) {
    if (error instanceof ApiError) return error.problem
    throw error
  }
}

async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  keepalive = false,
): Promise<T> {
  const response = await answerTo(path, {
    method,
    keepalive,
    headers: body === undefined ? {} : { 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
  return response.status === 204 ? (undefined as T) : ((await response.json()) as T)
}

/** What the server answers. @throws ApiError when it does not, or says what went wrong */
async function answerTo(path: string, request: RequestInit): Promise<Response> {
  let response: Response
  try {
    response = await fetch(path, request)
  } catch {
    throw new ApiError(0, {
      code: 'offline',
      message: 'The server does not answer.',
      mend: 'Work goes on here; it is saved when the server is back.',
    })
  }
  if (response.ok) return response
  const answer = (await response.json().catch(() => undefined)) as unknown
  const told = (answer ?? {}) as Partial<Problem> & { revision?: number }
  const problem = {
    code: told.code ?? 'server',
    message: told.message ?? 'The server failed at this.',
    mend: told.mend ?? 'Try again in a moment.',
  }
  throw new ApiError(response.status, problem, told.revision)
}

export const api = {
  projects: () => call<ProjectCard[]>('GET', '/api/projects'),
  createProject: (name: string) =>
    call<{ id: string }>('POST', '/api/projects', { name } satisfies ProjectBody),
  renameProject: (id: string, name: string) =>
    call<void>('PATCH', `/api/projects/${id}`, { name } satisfies ProjectBody),
  deleteProject: (id: string) => call<void>('DELETE', `/api/projects/${id}`),
  restoreProject: (id: string) => call<void>('POST', `/api/projects/${id}/restore`),
  createPart: (projectId: string, document: object) =>
    call<{ id: string; revision: number }>('POST', `/api/projects/${projectId}/parts`, {
      document,
    } satisfies NewPartBody),
  part: (id: string) => call<PartAnswer>('GET', `/api/parts/${id}`),
  /** Where what is stored of a part is to be had as it is, sound or not. */
  rawPart: (id: string) => `/api/parts/${id}/raw`,
  savePart: (id: string, revision: number, document: object, leaving = false) =>
    call<{ revision: number; updatedAt: string }>(
      'PUT',
      `/api/parts/${id}`,
      { revision, document } satisfies SavePartBody,
      leaving,
    ),
  deletePart: (id: string) => call<void>('DELETE', `/api/parts/${id}`),
  restorePart: (id: string) => call<void>('POST', `/api/parts/${id}/restore`),
  releases: (id: string) => call<ReleaseCard[]>('GET', `/api/parts/${id}/releases`),
  release: (id: string, body: ReleaseBody) =>
    call<{ mark: string }>('POST', `/api/parts/${id}/releases`, body),
  released: (id: string, mark: string) =>
    call<ReleaseAnswer>('GET', `/api/parts/${id}/releases/${mark}`),
  /** Where the PDF of a release is to be had. */
  releasedPdf: (id: string, mark: string) => `/api/parts/${id}/releases/${mark}/pdf`,
  startExport: (task: ExportBody) => call<JobAnswer>('POST', '/api/jobs', task),
  job: (id: string) => call<JobAnswer>('GET', `/api/jobs/${id}`),
  jobFile: async (id: string) =>
    new Uint8Array(await (await answerTo(`/api/jobs/${id}/file`, {})).arrayBuffer()),
  cancelJob: (id: string) => call<void>('DELETE', `/api/jobs/${id}`),
  titleBlocks: () => call<TitleBlock[]>('GET', '/api/title-blocks'),
  putTitleBlock: (block: TitleBlock) =>
    call<TitleBlock>('PUT', `/api/title-blocks/${encodeURIComponent(block.name)}`, block),
  deleteTitleBlock: (name: string) =>
    call<void>('DELETE', `/api/title-blocks/${encodeURIComponent(name)}`),
  materials: () => call<Material[]>('GET', '/api/materials'),
  putMaterial: ({ id, ...rest }: Material) =>
    call<Material>('PUT', `/api/materials/${id}`, rest satisfies MaterialBody),
  deleteMaterial: (id: string) => call<void>('DELETE', `/api/materials/${id}`),
}
