import { basename, extname } from 'node:path';
import {
  boundsOfAll,
  boxOf,
  isEmpty,
  type Outgoing,
  type OutgoingLayer,
  type PictureFile,
  uniteBoxes,
  writeDxf,
  writePdf,
  writeSvg,
} from '@lambent/core';
import { noteLine, type ReadDrawing, type ReadingOptions, readDrawing, write } from './files.ts';
import { Unusable } from './unusable.ts';

/**
 * Reads a drawing and writes it in another format, with the paints and layers it came with.
 * @returns the exit status
 * @throws Unusable when a file or a word cannot be used
 */
export async function convert(from: string, to: string, options: ReadingOptions): Promise<number> {
  const kind = extname(to).toLowerCase();
  if (!['.svg', '.dxf', '.pdf'].includes(kind)) {
    throw new Unusable(`${to} is to be written as SVG, DXF or PDF: give it a name that ends in .svg, .dxf or .pdf.`);
  }
  const drawn = await readDrawing(from, options);
  const outgoing = outgoingOf(drawn);
  if (kind === '.svg') await write(to, writeSvg(outgoing));
  else if (kind === '.dxf') await write(to, writeDxf(outgoing));
  else await write(to, await writePdf([outgoing], basename(from, extname(from))));
  process.stdout.write(
    `${basename(from)}: ${drawn.items.filter((item) => !item.hidden).length} items written to ${to}\n`,
  );
  for (const note of drawn.reading.notes) {
    if (note.kind !== 'taken') process.stdout.write(`  reading: ${noteLine(note)}\n`);
  }
  if (kind === '.dxf' && outgoing.pictures.size > 0) {
    process.stdout.write('  writing: DXF holds no pictures; they are left out.\n');
  }
  return 0;
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
