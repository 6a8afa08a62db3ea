import type { NextFunction, Request, Response } from 'express';
import { config } from '../config.ts';

const ownNames = ['localhost', '127.0.0.1', '[::1]'];

/**
 * Turns away what another site's page sends, by the Origin header that browsers add; and, while the
 * server listens to this machine alone, whatever asks for it by another name than this machine's, as a
 * site would that has its own name point here.
 */
export function sameOriginOnly(request: Request, response: Response, next: NextFunction): void {
  const { origin, host = '' } = request.headers;
  const foreignPage =
    (origin !== undefined && !isHost(origin, host)) || request.headers['sec-fetch-site'] === 'cross-site';
  const foreignName = ownNames.includes(config.host) && !ownNames.includes(host.replace(/:\d+$/, ''));
  if (foreignName || (foreignPage && request.path.startsWith('/api'))) {
    response.status(403).json({ error: { code: 'other-origin', message: 'Only Lambent’s own page may ask this.' } });
    return;
  }
  next();
}

function isHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}
