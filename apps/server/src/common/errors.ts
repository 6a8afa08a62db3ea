import type { ErrorAnswer } from '@lambent/contracts';
import { FileRefused, NotABook, NotADrawing, NotAKey, NotAPriceList } from '@lambent/core';
import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';

/** An error with a code the page knows and a sentence for the operator. */
export class PlainError extends HttpException {
  constructor(
    status: number,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message, status);
  }
}

export function notFound(what: string): PlainError {
  return new PlainError(404, 'not-found', `There is no such ${what}. It may have been removed.`);
}

/** Gives every error the one shape, and keeps what went wrong inside to the log. */
@Catch()
export class ErrorFilter implements ExceptionFilter {
  private readonly logger = new Logger('Errors');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    const { status, answer } = this.describe(error);
    response.status(status).json(answer);
  }

  private describe(error: unknown): { status: number; answer: ErrorAnswer } {
    if (error instanceof PlainError) {
      const { code, message, details } = error;
      return { status: error.getStatus(), answer: { error: { code, message, details } } };
    }
    if (error instanceof FileRefused) return plain(422, 'file-refused', error.message);
    if (error instanceof NotAPriceList) return plain(400, 'not-a-price-list', error.message);
    if (error instanceof NotABook) return plain(400, 'not-a-book', error.message);
    if (error instanceof NotAKey) return plain(400, 'not-a-key', error.message);
    if (error instanceof NotADrawing) return plain(400, 'not-a-job', `What was sent is not a job: ${error.message}.`);
    if (error instanceof HttpException) {
      const body = error.getResponse() as { message?: string | string[] };
      const said = typeof body === 'object' ? body.message : body;
      const message = Array.isArray(said) ? said.join('; ') : (said ?? error.message);
      return plain(error.getStatus(), error.getStatus() === 404 ? 'not-found' : 'bad-request', message);
    }
    this.logger.error(error);
    return plain(500, 'failed', 'Something went wrong in the server; nothing was changed. Its log says more.');
  }
}

function plain(status: number, code: string, message: string): { status: number; answer: ErrorAnswer } {
  return { status, answer: { error: { code, message } } };
}

/** Says in the one shape what is wrong with a body that could not be taken in. */
export function refuseBody(error: { type?: string }, _request: Request, response: Response, next: NextFunction): void {
  const { status, answer } =
    error.type === 'entity.too.large'
      ? plain(413, 'too-large', 'What was sent is larger than Lambent takes.')
      : plain(400, 'bad-request', 'What was sent is not JSON.');
  if (error.type) response.status(status).json(answer);
  else next(error);
}
