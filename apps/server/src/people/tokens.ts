import { createHash, randomBytes } from 'node:crypto';

/** A session that is not used for so long ends. */
export const sessionMs = 30 * 86_400_000;

/** Stands for the token of a session that nobody started: that of everybody in the demo. */
export const unsigned = '';

/** A token that nobody guesses: 256 bits, as 43 characters. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What of a token is kept: it cannot be made into the token again. */
export function hashOfToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
