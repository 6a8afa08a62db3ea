import { checkJob, jobSheetOf, type SheetWish } from '@lambent/core/checks';
import { sheetBox } from '@lambent/core/document';
import {
  type FileUnit,
  gatherOutgoing,
  type OutgoingChoices,
  type PictureFile,
  writeDxf,
  writeGcode,
  writePaper,
  writePdf,
  writeSvg,
} from '@lambent/core/formats';
import { type Box, boxOf } from '@lambent/core/geometry';
import type { BurnPlan, PreparedJob } from '@lambent/core/plan';
import type { Shop } from '@lambent/core/recipes';
import { drawPng } from './png.ts';
import { fontBook } from './worker-files.ts';

export type ArtworkFormat = 'svg' | 'dxf' | 'pdf' | 'png';

/** A plan as the program that a machine runs; made in pieces, so that a long one does not fill the memory twice. */
export function programFile(plan: BurnPlan, title: string): Blob {
  const parts: string[] = [];
  let chunk = '';
  for (const line of writeGcode(plan, title)) {
    chunk += `${line}\n`;
    if (chunk.length > 1 << 20) {
      parts.push(chunk);
      chunk = '';
    }
  }
  return new Blob([...parts, chunk], { type: 'text/plain' });
}

/** What goes to the machine on paper, as PDF. */
export async function jobSheetFile(
  prepared: PreparedJob,
  plan: BurnPlan,
  shop: Pick<Shop, 'materials'>,
  wish: SheetWish,
): Promise<Blob> {
  const sheet = jobSheetOf(wish, prepared, plan, checkJob(prepared, plan), shop);
  const bytes = await writePaper(sheet, await fontBook());
  return new Blob([bytes.slice()], { type: 'application/pdf' });
}

/** What a drawing goes out as. */
export interface ArtworkWish {
  readonly title: string;
  readonly format: ArtworkFormat;
  readonly choices: OutgoingChoices;
  readonly unit: FileUnit;
  /** Of a picture. */
  readonly pixelsPerInch: number;
  readonly pictures: ReadonlyMap<string, PictureFile>;
}

/** What a run burns, as a drawing: the whole bed; of PDF a page a sheet, of a picture the first sheet. */
export async function artworkFile(
  prepared: PreparedJob,
  { title, format, choices, unit, pixelsPerInch, pictures }: ArtworkWish,
): Promise<Blob> {
  const { sheets } = prepared.job;
  const { bedWidth, bedHeight } = prepared.machine;
  const outgoing = (page: Box) => gatherOutgoing(prepared, page, choices, pictures);
  const bed = boxOf(0, 0, bedWidth, bedHeight);
  switch (format) {
    case 'svg':
      return new Blob([writeSvg(outgoing(bed), unit)], { type: 'image/svg+xml' });
    case 'dxf':
      return new Blob([await writeDxf(outgoing(bed), unit)], { type: 'application/dxf' });
    case 'pdf': {
      const bytes = await writePdf((sheets.length > 0 ? sheets.map(sheetBox) : [bed]).map(outgoing), title);
      return new Blob([bytes.slice()], { type: 'application/pdf' });
    }
    case 'png':
      return drawPng(outgoing(sheets[0] ? sheetBox(sheets[0]) : bed), pixelsPerInch);
  }
}

export { programWays } from '@lambent/core/formats';
