import type { Request } from 'express';
import { sentBytes } from '../common/sent-bytes.ts';

/** The file that a sender leaves, byte for byte. @param name of the file @throws PlainError 415 where there is none */
export function leftBytes(request: Request, name = ''): Buffer {
  return sentBytes(request, name || 'The file');
}
