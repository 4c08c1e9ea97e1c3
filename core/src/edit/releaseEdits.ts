import { fail, succeed } from '../result'
import type { Part, Revision } from '../part'
import type { Command } from './command'
import { withDrawing } from './sheetEdits'

/** So many revisions a drawing has at most. */
const MOST_REVISIONS = 200

/** What the release of a mark is called among edits. */
export const releaseLabel = (mark: string): string => `release revision ${mark}`

/** Notes a release: what stands on the drawing is what later ones are compared with. The title block names it. */
export function release(revision: Revision): Command {
  return {
    label: releaseLabel(revision.mark),
    run: (part) => {
      const known = part.drawing?.revisions ?? []
      if (known.length >= MOST_REVISIONS) {
        return fail(
          'release.many',
          `A drawing has at most ${MOST_REVISIONS} revisions.`,
          'Go on in a copy of the part.',
        )
      }
      if (known.some((r) => r.mark === revision.mark)) {
        return fail(
          'release.twice',
          `Revision ${revision.mark} is released already.`,
          'Take the next mark.',
        )
      }
      return succeed(released(part, revision))
    },
  }
}

const released = (part: Part, revision: Revision): Part =>
  withDrawing(part, (setup) => ({
    ...setup,
    title: { ...setup.title, revision: revision.mark, date: revision.date },
    revisions: [...setup.revisions, revision],
  }))
