import { AsyncLocalStorage } from 'node:async_hooks';
import type { NextFunction, Request, Response } from 'express';

/** On whose behalf something is done: the id of the person who is signed in; null where nobody is. */
interface Caller {
  personId: string | null;
}

const callers = new AsyncLocalStorage<Caller>();

/** Has all that a request leads to know who sent it, once that is known. */
export function rememberCaller(_request: Request, _response: Response, next: NextFunction): void {
  callers.run({ personId: null }, next);
}

/** Says who sent the request that is being answered. */
export function isCalledBy(personId: string | null): void {
  const caller = callers.getStore();
  if (caller) caller.personId = personId;
}

/** The id of the person on whose behalf something is done; null where it is nobody's, or the server's own. */
export function callerId(): string | null {
  return callers.getStore()?.personId ?? null;
}
