import type { FontBook } from '../text/fonts.ts';
import type { FileUnit, Outgoing } from './outgoing.ts';
import type { Paper } from './paper.ts';

/*
 * Writers whose packages are large: loaded when they are needed.
 */

/** Writes artwork as PDF: see `pdf/write.ts`. @param pages what is on each page */
export async function writePdf(pages: readonly Outgoing[], title: string): Promise<Uint8Array> {
  return (await import('./pdf/write.ts')).writePdf(pages, title);
}

/** Writes a job sheet or a quote as PDF: see `pdf/paper.ts`. @param book fonts for characters that the PDF's own lack. */
export async function writePaper(paper: Paper, book: FontBook): Promise<Uint8Array> {
  return (await import('./pdf/paper.ts')).writePaper(paper, book);
}

/** Writes artwork as DXF: see `dxf/write.ts`. */
export async function writeDxf(outgoing: Outgoing, unit?: FileUnit): Promise<string> {
  return (await import('./dxf/write.ts')).writeDxf(outgoing, unit);
}
