/** An answer that says what went wrong: a status, and a body of code, message and mend. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly mend: string,
    readonly extra: Readonly<Record<string, unknown>> = {},
  ) {
    super(message)
  }
}

export function notFound(what: string): HttpProblem {
  return new HttpProblem(404, 'not-found', `There is no such ${what}.`, 'Go back to the shelf.')
}
