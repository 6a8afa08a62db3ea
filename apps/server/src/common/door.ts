import { createHmac, timingSafeEqual } from 'node:crypto';
import type { NextFunction, Request, Response } from 'express';
import { cookieIn } from './cookies.ts';

const loopback = ['localhost', '127.0.0.1', '[::1]'];
const cookieName = 'lambent';

/** What the door looks at of a request. */
export interface Knock {
  readonly method: string;
  /** As it was sent: path and query. */
  readonly url: string;
  readonly headers: Readonly<Record<string, string | readonly string[] | undefined>>;
}

export interface DoorRules {
  /** Where the server listens. */
  readonly host: string;
  /** Who has it may enter; null where everybody who can reach the server may. */
  readonly token: string | null;
}

/**
 * What becomes of a request before anything else looks at it: it passes; it is turned away as another site's, under
 * another name, or without the token; or it has brought the token, and is given the cookie that stands for it.
 */
export type Verdict = 'pass' | 'other-origin' | 'other-name' | 'no-token' | 'token-brought';

/** Whether a machine's own name for itself is listened to, and no other. */
export function isLoopback(host: string): boolean {
  return loopback.includes(host) || host === '::1';
}

/**
 * @param knock what another site's page can send is told by the headers that browsers add and pages cannot change: Origin,
 * and Sec-Fetch-Site (Fetch Metadata). Programs send neither and pass. A site whose name is made to point here (DNS
 * rebinding) is told by Host.
 */
export function judge(knock: Knock, { host, token }: DoorRules): Verdict {
  const header = (name: string) => {
    const value = knock.headers[name];
    return typeof value === 'string' ? value : undefined;
  };
  const asked = header('host') ?? '';
  if (isLoopback(host) && !loopback.includes(asked.replace(/:\d+$/, ''))) return 'other-name';
  if (!isPageFile(knock)) {
    const origin = header('origin');
    if (origin !== undefined && hostOf(origin) !== asked) return 'other-origin';
    const site = header('sec-fetch-site');
    if (site !== undefined && site !== 'same-origin' && site !== 'none') return 'other-origin';
  }
  if (token === null) return 'pass';
  const brought = new URL(knock.url, 'http://lambent').searchParams.get('token');
  if (brought !== null && same(brought, token)) return 'token-brought';
  if (isShopsScript(knock.headers, { token })) return 'pass';
  const cookie = cookieIn(header('cookie'), cookieName);
  return cookie !== undefined && same(cookie, cookieFor(token)) ? 'pass' : 'no-token';
}

/** Whether a request is one of a script that has the token of the shop. */
export function isShopsScript({ authorization }: Knock['headers'], { token }: Pick<DoorRules, 'token'>): boolean {
  const bearer = typeof authorization === 'string' ? /^Bearer (.+)$/.exec(authorization)?.[1] : undefined;
  return token !== null && bearer !== undefined && same(bearer, token);
}

/** Only what is plainly no part of the API: another site may link to the page, and load its pictures. */
function isPageFile({ method, url }: Knock): boolean {
  if (method !== 'GET' && method !== 'HEAD') return false;
  let path: string;
  try {
    path = decodeURIComponent(url.split('?')[0]).toLowerCase();
  } catch {
    return false;
  }
  return !/^[/\\.\s]*api(?:[/\\\s]|$)/.test(path);
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}

/** Compares in the same time however much is alike. */
function same(a: string, b: string): boolean {
  const [left, right] = [a, b].map((text) => createHmac('sha256', 'lambent').update(text).digest());
  return timingSafeEqual(left, right);
}

/** What the cookie holds: it stands for the token, and does not tell it. */
export function cookieFor(token: string): string {
  return createHmac('sha256', token).update('cookie').digest('hex');
}

/** The door as it stands before all routes. */
export function doorOf(rules: DoorRules) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const verdict = judge({ method: request.method, url: request.originalUrl, headers: request.headers }, rules);
    switch (verdict) {
      case 'pass':
        next();
        break;
      case 'token-brought':
        response
          .cookie(cookieName, cookieFor(rules.token ?? ''), {
            httpOnly: true,
            sameSite: 'strict',
            maxAge: 400 * 86_400_000,
          })
          .redirect(303, '/');
        break;
      case 'no-token':
        response.status(401).json({
          error: {
            code: 'no-token',
            message: 'Open Lambent once by the link that it said when it was started: it holds the token of this shop.',
          },
        });
        break;
      default:
        response
          .status(403)
          .json({ error: { code: 'other-origin', message: 'Only Lambent’s own page may ask this.' } });
    }
  };
}
