import type { NextFunction, Request, Response } from 'express';

/** Turns away what another site's page sends, by the Origin header that browsers add. */
export function sameOriginOnly(request: Request, response: Response, next: NextFunction): void {
  const { origin, host } = request.headers;
  const site = request.headers['sec-fetch-site'];
  const foreign = (origin !== undefined && !isHost(origin, host)) || site === 'cross-site';
  if (foreign && request.path.startsWith('/api')) {
    response.status(403).json({ error: { code: 'other-origin', message: 'Only Lambent’s own page may ask this.' } });
    return;
  }
  next();
}

function isHost(origin: string, host: string | undefined): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}
