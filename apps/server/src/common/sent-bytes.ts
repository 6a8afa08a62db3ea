import { PlainError } from './plain-error.ts';

/**
 * The body of a request that is a file.
 * @param what begins the sentence that refuses nothing
 * @throws PlainError 400 where nothing was sent.
 */
export function sentBytes({ body }: { readonly body?: unknown }, what: string): Buffer {
  if (Buffer.isBuffer(body) && body.length > 0) return body;
  throw new PlainError(400, 'empty-file', `${what} is empty. Save or send it again.`);
}
