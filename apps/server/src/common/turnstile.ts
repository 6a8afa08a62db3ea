import type { NextFunction, Request, Response } from 'express';

/** As long as requests are let in before whatever else is due has its turn. */
const turnMs = 5;

/**
 * Lets requests in a few at a time, in their order. However many come at once, machines are fed and heard in between.
 */
export function turnstile() {
  const waiting: NextFunction[] = [];
  const letIn = () => {
    const end = performance.now() + turnMs;
    do waiting.shift()?.();
    while (waiting.length > 0 && performance.now() < end);
    if (waiting.length > 0) setImmediate(letIn);
  };
  return (_request: Request, _response: Response, next: NextFunction): void => {
    waiting.push(next);
    if (waiting.length === 1) setImmediate(letIn);
  };
}
