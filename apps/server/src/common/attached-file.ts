import { StreamableFile } from '@nestjs/common';

/** A table of comma-separated values. With a mark of its order of bytes, table programs take it for UTF-8. */
export function attachedCsv(csv: string, name: string): StreamableFile {
  return attachedFile(Buffer.from(`\uFEFF${csv}`), 'text/csv; charset=utf-8', name);
}

/** A file that the browser keeps, and does not show. @param type such as `application/pdf` */
export function attachedFile(bytes: Uint8Array, type: string, name: string): StreamableFile {
  return new StreamableFile(bytes, { type, disposition: `attachment; filename="${name}"` });
}
