import { fail, type Result } from '../result'
import { MOST_TRIANGLES } from '../solid'

/** How to mend a mesh that is too fine. */
export const THINNER = 'Write it with a coarser tolerance.'

export const tooManyTriangles = (count: number): Result<never> =>
  fail(
    'mesh.triangles',
    `This file has ${count} triangles; at most ${MOST_TRIANGLES} are taken.`,
    THINNER,
  )
