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
import { type ReadDrawing, standard, write } from './files.ts';
import { Unusable } from './unusable.ts';

const kinds = ['svg', 'dxf', 'pdf'] as const;
export type DrawingKind = (typeof kinds)[number];

/**
 * In which format a drawing is to be written.
 * @param as says so where the name does not
 * @throws Unusable when neither says one of those that drawings are written in
 */
export function drawingKind(to: string, as?: string): DrawingKind {
  const said = (as ?? extname(to).slice(1)).toLowerCase();
  const kind = kinds.find((known) => known === said);
  if (kind) return kind;
  if (as !== undefined) throw new Unusable(`--as may be svg, dxf or pdf, and not “${as}”.`);
  if (to === standard) throw new Unusable('Say with --as whether it is to be svg, dxf or pdf.');
  throw new Unusable(`${to} is to be written as SVG, DXF or PDF: give it a name that ends in .svg, .dxf or .pdf.`);
}

/**
 * Writes a drawing in a format, with the paints and layers it has.
 * @returns what was written
 * @throws Unusable when the file cannot be written
 */
export async function writeDrawing(to: string, drawn: ReadDrawing, kind: DrawingKind): Promise<Outgoing> {
  const outgoing = outgoingOf(drawn);
  await writeOutgoing(to, outgoing, kind);
  return outgoing;
}

/**
 * Writes what goes out in a format.
 * @throws Unusable when the file cannot be written
 */
export async function writeOutgoing(to: string, outgoing: Outgoing, kind: DrawingKind): Promise<void> {
  if (kind === 'svg') await write(to, writeSvg(outgoing));
  else if (kind === 'dxf') await write(to, await writeDxf(outgoing));
  else await write(to, await writePdf([outgoing], basename(to, extname(to))));
}

/** A file's own page and layers; a page around everything where it has none. */
export function outgoingOf({ reading, items }: ReadDrawing): Outgoing {
  const { pageWidthMm, pageHeightMm } = reading.size;
  const shown = items.filter((item) => !item.hidden);
  const bounds = boundsOfAll(shown);
  const page = boxOf(0, 0, pageWidthMm ?? 0, pageHeightMm ?? 0);
  const names = new Map(reading.drawing.groups.map(({ id, name }) => [id, name ?? 'Layer']));
  const named = new Map((reading.layers ?? []).flatMap((layer) => layer.itemIds.map((id) => [id, layer] as const)));
  const layers: (OutgoingLayer & { items: (typeof shown)[number][] })[] = [];
  for (const item of shown) {
    const layer = named.get(item.id);
    const name = layer?.name ?? names.get(item.groupId ?? '') ?? 'Drawing';
    const meant = layer ? { id: layer.id ?? layer.name, operation: layer.operation } : null;
    // A layer that is come back to begins anew, so that what is in front stays in front.
    const last = layers.at(-1);
    if (last?.name !== name || last.meant?.operation !== meant?.operation) {
      layers.push({ name, meant, colour: '#000000', items: [] });
    }
    layers.at(-1)?.items.push(item);
  }
  const pictures = new Map(reading.pictures.map((picture): [string, PictureFile] => [picture.id, picture]));
  return { page: isEmpty(bounds) ? page : uniteBoxes(page, bounds), layers, pictures };
}
