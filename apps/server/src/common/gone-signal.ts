import type { Response } from 'express';

/** Aborted when whoever asked has gone: what nobody waits for is not worked out. */
export function goneSignal(response: Response): AbortSignal {
  const gone = new AbortController();
  response.once('close', () => response.writableFinished || gone.abort());
  return gone.signal;
}
