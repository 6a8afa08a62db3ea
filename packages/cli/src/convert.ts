import { basename, extname } from 'node:path';
import { checkDrawingName, writeDrawing } from './drawing-out.ts';
import { noteLine, type ReadingOptions, readDrawing } from './files.ts';

/**
 * Reads a drawing and writes it in another format, with the paints and layers it came with.
 * @returns the exit status
 * @throws Unusable when a file or a word cannot be used
 */
export async function convert(from: string, to: string, options: ReadingOptions): Promise<number> {
  checkDrawingName(to);
  const drawn = await readDrawing(from, options);
  const { pictures } = await writeDrawing(to, drawn);
  process.stdout.write(
    `${basename(from)}: ${drawn.items.filter((item) => !item.hidden).length} items written to ${to}\n`,
  );
  for (const note of drawn.reading.notes) {
    if (note.kind !== 'taken') process.stdout.write(`  reading: ${noteLine(note)}\n`);
  }
  if (extname(to).toLowerCase() === '.dxf' && pictures.size > 0) {
    process.stdout.write('  writing: DXF holds no pictures; they are left out.\n');
  }
  return 0;
}
