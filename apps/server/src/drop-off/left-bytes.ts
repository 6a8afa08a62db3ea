import { largestSending } from '@lambent/contracts';
import type { Request } from 'express';
import { PlainError } from '../common/plain-error.ts';
import { sentBytes } from '../common/sent-bytes.ts';

/** The file that a sender leaves. @param name of the file @throws PlainError 413 where it is too large, 415 where there is none */
export function leftBytes(request: Request, name = ''): Buffer {
  const bytes = sentBytes(request, name || 'The file');
  if (bytes.length <= largestSending) return bytes;
  throw new PlainError(413, 'too-large', `A file has ${largestSending / 1024 / 1024} MB at most.`);
}
