import type { NextFunction, Request, Response } from 'express';
import { refuseBody } from './errors.ts';

/** Refuses a body that says itself that it is too large, before any of it is taken in. @param limit in bytes */
export function refuseLarge(limit: number) {
  return (request: Request, response: Response, next: NextFunction): void => {
    if (!(Number(request.headers['content-length']) > limit)) {
      next();
      return;
    }
    // What is still on its way is not waited for.
    response.shouldKeepAlive = false;
    refuseBody({ type: 'entity.too.large' }, request, response, next);
  };
}
