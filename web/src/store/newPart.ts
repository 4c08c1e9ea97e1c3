import { ApiError, api } from '../api/client'
import { tellProblem } from '../notices'

/**
 * Makes a new part in a project, or in any there is where that is gone, and returns its id; a refusal is told.
 */
export async function newPart(projectId: string, document: object): Promise<string | undefined> {
  try {
    const projects = await api.projects()
    const into = projects.find((p) => p.id === projectId) ?? projects[0]
    const where = into?.id ?? (await api.createProject('Unsaved work')).id
    return (await api.createPart(where, document)).id
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    tellProblem(error.problem)
    return undefined
  }
}
