import { basename, extname } from 'node:path';
import { boundsOfAll } from '@lambent/core/document';
import {
  type Outgoing,
  type OutgoingLayer,
  type PictureFile,
  writeDxf,
  writePdf,
  writeSvg,
} from '@lambent/core/formats';
import { boxOf, isEmpty, uniteBoxes } from '@lambent/core/geometry';
import { type ReadDrawing, write } from './files.ts';
import { Unusable } from './unusable.ts';

/** @throws Unusable when a name says none of the formats that drawings are written in */
export function checkDrawingName(to: string): void {
  if (!['.svg', '.dxf', '.pdf'].includes(extname(to).toLowerCase())) {
    throw new Unusable(`${to} is to be written as SVG, DXF or PDF: give it a name that ends in .svg, .dxf or .pdf.`);
  }
}

/**
 * Writes a drawing in the format its name says, with the paints and layers it has.
 * @returns what was written
 * @throws Unusable when the file cannot be written
 */
export async function writeDrawing(to: string, drawn: ReadDrawing): Promise<Outgoing> {
  const outgoing = outgoingOf(drawn);
  const kind = extname(to).toLowerCase();
  if (kind === '.svg') await write(to, writeSvg(outgoing));
  else if (kind === '.dxf') await write(to, await writeDxf(outgoing));
  else await write(to, await writePdf([outgoing], basename(to, extname(to))));
  return outgoing;
}

/** A file's own page and layers; a page around everything where it has none. */
function outgoingOf({ reading, items }: ReadDrawing): Outgoing {
  const { pageWidthMm, pageHeightMm } = reading.size;
  const shown = items.filter((item) => !item.hidden);
  const bounds = boundsOfAll(shown);
  const page = boxOf(0, 0, pageWidthMm ?? 0, pageHeightMm ?? 0);
  const names = new Map(reading.drawing.groups.map(({ id, name }) => [id, name ?? 'Layer']));
  const layers: (OutgoingLayer & { items: (typeof shown)[number][] })[] = [];
  for (const item of shown) {
    const name = names.get(item.groupId ?? '') ?? 'Drawing';
    // A layer that is come back to begins anew, so that what is in front stays in front.
    if (layers.at(-1)?.name !== name) layers.push({ name, colour: '#000000', items: [] });
    layers.at(-1)?.items.push(item);
  }
  const pictures = new Map(reading.pictures.map((picture): [string, PictureFile] => [picture.id, picture]));
  return { page: isEmpty(bounds) ? page : uniteBoxes(page, bounds), layers, pictures };
}
