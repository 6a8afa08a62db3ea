import { createHash } from 'node:crypto';
import { describePicture as describe, FileRefused } from '@lambent/core/formats';

/** What a picture is: its hash, by which drawings name it, and its media type. */
export interface PictureFacts {
  readonly id: string;
  readonly mediaType: string;
}

/** @throws FileRefused when it is neither PNG nor JPEG */
export function describePicture(bytes: Uint8Array): PictureFacts {
  const { kind } = describe(bytes);
  if (kind !== 'png' && kind !== 'jpg') throw new FileRefused('What was sent is neither a PNG nor a JPEG picture.');
  const id = createHash('sha256').update(bytes).digest('hex');
  return { id, mediaType: kind === 'png' ? 'image/png' : 'image/jpeg' };
}
