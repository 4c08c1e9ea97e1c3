import type { Problem } from '@lathica/core/result'

/** What is said when files of jobs do not fit the disk. */
export const NO_ROOM: Problem = {
  code: 'job.room',
  message: 'The disk that holds files on their way is full.',
  mend: 'Make room on the disk of temporary files, and try again.',
}
