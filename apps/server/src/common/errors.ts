import type { ErrorAnswer } from '@lambent/contracts';
import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { refusalOf } from './refusals.ts';

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
    // What the answer was to be, and how long it was to be kept, does not hold of a refusal.
    response.status(status).set('Cache-Control', 'no-store').type('json').send(JSON.stringify(answer));
  }

  private describe(error: unknown): { status: number; answer: ErrorAnswer } {
    const refusal = refusalOf(error);
    if (refusal) {
      const { status, code, message, details } = refusal;
      return { status, answer: { error: { code, message, details } } };
    }
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
      : error.type === 'entity.too.deep'
        ? plain(400, 'too-deep', 'What was sent is nested deeper than anything that Lambent knows.')
        : plain(400, 'bad-request', 'What was sent is not JSON.');
  if (error.type) response.status(status).json(answer);
  else next(error);
}
