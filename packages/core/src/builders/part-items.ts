import { type Item, type Paint, unpainted } from '../document/item.ts';
import type { Matrix } from '../geometry/paths/matrix.ts';
import { appendPath, type Path, PathBuilder } from '../geometry/paths/path.ts';
import { operationOf } from '../operations/operations.ts';
import type { Part } from './builder.ts';
import { labelStrokes } from './stroke-letters.ts';

/** The house colour of an operation. */
export const drawnAs = (operation: 'cut' | 'score'): Paint => ({
  ...unpainted,
  stroke: operationOf(operation).colour,
  strokeWidthMm: 0.1,
});

/** All that is scored on a part: its lines and its letters. */
export function scoredOf({ score, labels }: Part): Path {
  const builder = new PathBuilder();
  appendPath(builder, score, true);
  appendPath(builder, labelStrokes(labels), true);
  return builder.build();
}

/**
 * A part as items: what is cut, and what is scored where there is anything, each in the house colour of its operation.
 *
 * @param place takes the part's frame to the bed
 */
export function partItems(part: Part, place: Matrix, newId: () => string): Item[] {
  const { name, cut } = part;
  const scored = scoredOf(part);
  const item = (words: string, operation: 'cut' | 'score', path: Path): Item => ({
    id: newId(),
    name: words,
    shape: { kind: 'path', path },
    matrix: place,
    paint: drawnAs(operation),
    fillRule: 'evenodd',
    groupId: null,
    pinned: null,
    hidden: false,
  });
  const lines = scored.verbs.length > 0 ? [item(`${name}, scored`, 'score', scored)] : [];
  return [item(name, 'cut', cut), ...lines];
}
