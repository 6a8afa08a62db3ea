import type { Outgoing } from '../outgoing.ts';

/**
 * Writes artwork as PDF: see `pdf/write.ts`, which is loaded when it is needed.
 * @param pages what is on each page
 */
export async function writePdf(pages: readonly Outgoing[], title: string): Promise<Uint8Array> {
  return (await import('./write.ts')).writePdf(pages, title);
}
