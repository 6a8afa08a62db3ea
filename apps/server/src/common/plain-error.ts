/** An error with a code the page knows and a sentence for the operator. */
export class PlainError extends Error {
  constructor(
    /** As HTTP has it. */
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message);
  }
}

/** The answer 404. @param what such as `job` */
export function notFound(what: string): PlainError {
  return new PlainError(404, 'not-found', `There is no such ${what}. It may have been deleted.`);
}
