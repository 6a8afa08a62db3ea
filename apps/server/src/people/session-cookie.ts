import type { Request, Response } from 'express';
import { cookieIn } from '../common/cookies.ts';
import { sessionMs } from './tokens.ts';

const cookieName = 'lambent-session';

/** The token that a browser has from when somebody signed in there; null where it has none. */
export function tokenOf(request: Request): string | null {
  return cookieIn(request.headers.cookie, cookieName) ?? null;
}

/** Gives a browser a token: no script reads it, and no other site's page sends it. */
export function giveToken(request: Request, response: Response, token: string): void {
  response.cookie(cookieName, token, {
    httpOnly: true,
    sameSite: 'strict',
    secure: request.secure,
    path: '/',
    maxAge: sessionMs,
  });
}

/** Has a browser forget its token. */
export function takeToken(response: Response): void {
  response.clearCookie(cookieName, { httpOnly: true, sameSite: 'strict', path: '/' });
}
