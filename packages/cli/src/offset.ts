import type { Item } from '@lambent/core/document';
import { offsetOf } from '@lambent/core/fit';
import { identity, type Join, plainOffset, subpathsOf } from '@lambent/core/geometry';
import { parseLength } from '@lambent/core/units';
import { colourWord } from './colour-word.ts';
import { drawingKind, writeDrawing } from './drawing-out.ts';
import { nameOf, type ReadDrawing, type ReadingOptions, readDrawing, sayTo, spoken, standard } from './files.ts';
import { Unusable } from './unusable.ts';

export interface OffsetOptions extends ReadingOptions {
  by: string;
  join: string;
  ignoreHoles?: boolean;
  select?: string;
  as?: string;
}

const joins: readonly Join[] = ['round', 'miter', 'bevel'];

/**
 * Writes the outlines at a distance from those of a drawing, all taken together.
 * @returns the exit status: 1 when nothing is left
 * @throws Unusable when a file or a word cannot be used
 */
export async function offset(from: string, to: string, options: OffsetOptions): Promise<number> {
  const kind = drawingKind(to, options.as);
  const parsed = parseLength(options.by, 'mm');
  if (!parsed.ok || parsed.value === 0) {
    throw new Unusable(`--by must be a length other than 0, such as 2 or -0.5, and not “${options.by}”.`);
  }
  const distance = parsed.value;
  const join = joins.find((known) => known === options.join);
  if (!join) throw new Unusable(`--join must be ${joins.join(', ')}, and not “${options.join}”.`);
  const drawn = await readDrawing(from, options);
  const sources = chosen(drawn, options.select).filter(({ hidden, shape }) => !hidden && shape.kind !== 'picture');
  if (sources.length === 0) {
    const which = options.select ? ` with a stroke of ${options.select}` : '';
    throw new Unusable(`${from} has no outlines${which}: there is nothing to offset.`);
  }
  const path = offsetOf(sources, { ...plainOffset, by: distance, join, ignoreHoles: options.ignoreHoles === true });
  if (path.verbs.length === 0) {
    process.stdout.write(`${nameOf(from)}: nothing is left ${Math.abs(distance)} mm inward; nothing was written.\n`);
    return 1;
  }
  const item: Item = {
    ...sources[0],
    id: 'offset',
    name: null,
    shape: { kind: 'path', path },
    matrix: identity,
    fillRule: 'nonzero',
    groupId: null,
  };
  await writeDrawing(to, { ...drawn, items: [item] }, kind);
  const count = [...subpathsOf(path)].length;
  const where = spoken(to, 'standard output');
  sayTo(to === standard)(`${nameOf(from)}: ${count} ${count === 1 ? 'outline' : 'outlines'} written to ${where}`);
  return 0;
}

/** The items with a stroke of a colour; all of them where none is asked for. */
function chosen({ items }: ReadDrawing, select: string | undefined): readonly Item[] {
  if (select === undefined) return items;
  const wanted = colourWord('--select', select);
  return items.filter(({ paint }) => paint.stroke === wanted);
}
