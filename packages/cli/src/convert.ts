import { drawingKind, writeDrawing } from './drawing-out.ts';
import { nameOf, noteLine, type ReadingOptions, readDrawing, sayTo, spoken, standard } from './files.ts';

export interface ConvertOptions extends ReadingOptions {
  as?: string;
}

/**
 * Reads a drawing and writes it in another format, with the paints and layers it came with.
 * @returns the exit status
 * @throws Unusable when a file or a word cannot be used
 */
export async function convert(from: string, to: string, options: ConvertOptions): Promise<number> {
  const kind = drawingKind(to, options.as);
  const drawn = await readDrawing(from, options);
  const { pictures } = await writeDrawing(to, drawn, kind);
  const say = sayTo(to === standard);
  const count = drawn.items.filter((item) => !item.hidden).length;
  say(`${nameOf(from)}: ${count} items written to ${spoken(to, 'standard output')}`);
  for (const note of drawn.reading.notes) {
    if (note.kind !== 'taken') say(`  reading: ${noteLine(note)}`);
  }
  if (kind === 'dxf' && pictures.size > 0) say('  writing: DXF holds no pictures; they are left out.');
  return 0;
}
