/** Why a database cannot be used: what is so, what mends it, and the exit code that says it to scripts. */
export class DatabaseFailure extends Error {
  constructor(
    readonly exitCode: number,
    message: string,
    readonly mend: string,
    options?: ErrorOptions,
  ) {
    super(message, options)
  }
}

interface Told {
  readonly when: RegExp
  readonly exitCode: number
  readonly message: string
  readonly mend: string
}

/** What the driver says, by code or in words, and what that means to whoever starts the server. */
const FAILURES: readonly Told[] = [
  {
    when: /migration directory is corrupt/,
    exitCode: 3,
    message: 'was written by a newer Lathica than this one',
    mend: 'Start the newer one, or name another file with --database.',
  },
  {
    when: /migration (table|lock).*lock|already locked/i,
    exitCode: 10,
    message: 'was left while it was brought up to date',
    mend: 'Start from the newest copy that is beside it, in the folder of copies, with --database.',
  },
  {
    when: /SQLITE_NOTADB|not a database/,
    exitCode: 4,
    message: 'is no database',
    mend: 'Name another file with --database; this one is left as it is.',
  },
  {
    when: /SQLITE_CORRUPT|malformed/,
    exitCode: 5,
    message: 'is damaged',
    mend: 'Keep a copy of it; then start from the newest copy that is beside it, in the folder of copies, with --database.',
  },
  {
    when: /SQLITE_READONLY|readonly database|EACCES|EROFS|SQLITE_CANTOPEN|[Uu]nable to open/,
    exitCode: 6,
    message: 'cannot be written to',
    mend: 'See who owns the file and its folder, and whether the disk lets itself be written.',
  },
  {
    when: /SQLITE_BUSY|SQLITE_LOCKED|database is locked/,
    exitCode: 7,
    message: 'is held by another program',
    mend: 'See whether Lathica runs already, and end that one first.',
  },
  {
    when: /SQLITE_FULL|disk is full|ENOSPC/,
    exitCode: 8,
    message: 'does not fit its disk any more',
    mend: 'Make room on the disk, and start again: nothing that was saved is lost.',
  },
]

/** What an error of the driver means, in words; the error itself where that is not known. */
export function failureOf(error: unknown, filename: string): unknown {
  if (error instanceof DatabaseFailure) return error
  const { code = '', message = '' } = error as { code?: unknown; message?: unknown }
  const said = `${String(code)} ${String(message)}`
  const told = FAILURES.find((f) => f.when.test(said))
  if (!told) return error
  const words = `The database ${filename} ${told.message}.`
  return new DatabaseFailure(told.exitCode, words, told.mend, { cause: error })
}

/** A file that is a database, but of something else. */
export const foreignDatabase = (filename: string): DatabaseFailure =>
  new DatabaseFailure(
    9,
    `The database ${filename} belongs to another program.`,
    'Name another file with --database; this one is left as it is.',
  )
