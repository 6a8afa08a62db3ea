import { StreamableFile } from '@nestjs/common';

/** A file that the browser keeps, and does not show. @param type such as `application/pdf` */
export function attachedFile(bytes: Uint8Array, type: string, name: string): StreamableFile {
  return new StreamableFile(bytes, { type, disposition: `attachment; filename="${name}"` });
}
