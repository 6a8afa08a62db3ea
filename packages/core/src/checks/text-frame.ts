import { type Item, topGroupOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { meanScale } from '../geometry/paths/matrix.ts';
import { burntItems, type Check, countOf, finding } from './finding.ts';

/** So many texts are named. */
const mostNamed = 5;

function overOf({ shape, matrix }: Item): number {
  return shape.kind === 'text' ? (shape.over ?? 0) * meanScale(matrix) : 0;
}

/** Texts that do not fit into their frame, however small or narrow they are set; of a list with their row. */
export const checkTextFrame: Check = (prepared) => {
  const texts = burntItems(prepared).filter((item) => overOf(item) > 0);
  if (texts.length === 0) return [];
  const named = texts
    .slice(0, mostNamed)
    .map((item) => `${quoted(item)}${rowOf(prepared.job, item)} by ${overOf(item).toFixed(1)} mm`);
  const rest = texts.length > mostNamed ? ` and ${texts.length - mostNamed} more` : '';
  const are = countOf(texts.length, 'text is', 'texts are');
  const message = `${are} larger than ${texts.length === 1 ? 'its place' : 'their places'}: ${named.join(', ')}${rest}. Shorten what is said, or give it more room.`;
  return [finding('text-over-frame', 'warns', message, texts)];
};

function quoted({ shape }: Item): string {
  const words = shape.kind === 'text' ? shape.text.words.replaceAll('\n', ' ') : '';
  return `“${words.length > 40 ? `${words.slice(0, 39)}…` : words}”`;
}

/** Which row of a list an item was made for, in brackets; nothing where it was not. */
function rowOf({ drawing, lists }: Pick<JobDocument, 'drawing' | 'lists'>, item: Item): string {
  const row = topGroupOf(drawing, item)?.row;
  const number = 1 + (lists.find(({ id }) => id === row?.listId)?.rows.findIndex(({ id }) => id === row?.rowId) ?? -1);
  return number > 0 ? ` (row ${number})` : '';
}
