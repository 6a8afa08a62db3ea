import type { FontBook } from '../text/fonts.ts';
import type { JobSheet } from './job-sheet.ts';
import type { FileUnit, Outgoing } from './outgoing.ts';

/*
 * Writers whose packages are large: loaded when they are needed.
 */

/** Writes artwork as PDF: see `pdf/write.ts`. @param pages what is on each page */
export async function writePdf(pages: readonly Outgoing[], title: string): Promise<Uint8Array> {
  return (await import('./pdf/write.ts')).writePdf(pages, title);
}

/** Writes a job sheet as PDF: see `pdf/job-sheet.ts`. @param book fonts for characters that the PDF's own lack. */
export async function writeJobSheet(sheet: JobSheet, book: FontBook): Promise<Uint8Array> {
  return (await import('./pdf/job-sheet.ts')).writeJobSheet(sheet, book);
}

/** Writes artwork as DXF: see `dxf/write.ts`. */
export async function writeDxf(outgoing: Outgoing, unit?: FileUnit): Promise<string> {
  return (await import('./dxf/write.ts')).writeDxf(outgoing, unit);
}
