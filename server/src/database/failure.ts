/** Why a database cannot be used: what is so, what mends it, and the exit code that says it to scripts. */
export class DatabaseFailure extends Error {
  constructor(
    readonly exitCode: number,
    message: string,
    readonly mend: string,
    options?: ErrorOptions,
    /** What a request that met it is answered with. */
    readonly status = 503,
  ) {
    super(message, options)
  }
}

interface Told {
  readonly when: RegExp
  readonly exitCode: number
  readonly message: string
  readonly mend: string
  /** What a request is answered with that meets it while the server runs; 503 where left out. */
  readonly status?: number
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
    mend: 'Save what can be read of it with “npx lathica rescue”, or start from the newest copy that is beside it, in the folder of copies, with --database.',
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
    mend: 'Make room on the disk, and try again: nothing that was saved is lost.',
    status: 507,
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
  return new DatabaseFailure(told.exitCode, words, told.mend, { cause: error }, told.status)
}

/** A file that is a database, but of something else. */
export const foreignDatabase = (filename: string): DatabaseFailure =>
  new DatabaseFailure(
    9,
    `The database ${filename} belongs to another program.`,
    'Name another file with --database; this one is left as it is.',
  )

/** The file is not where it was, while the server runs: what is written to it now, no one finds again. */
export const vanishedDatabase = (filename: string, kept: string | undefined): DatabaseFailure =>
  new DatabaseFailure(
    11,
    `The database ${filename} was moved or deleted while Lathica ran; nothing more is saved.`,
    kept === undefined
      ? 'Move it back where it was; Lathica goes on as soon as it is there.'
      : `Move it back where it was, or put ${kept} there and start Lathica again.`,
  )

/** Whether an error says that another program holds the database just now. */
export const isHeld = (error: unknown): boolean => {
  const { code = '', message = '' } = error as { code?: unknown; message?: unknown }
  return /SQLITE_BUSY|SQLITE_LOCKED|database is locked/.test(`${String(code)} ${String(message)}`)
}
