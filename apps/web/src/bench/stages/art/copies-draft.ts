import { type Item, pathOf } from '@lambent/core/document';
import { appendPath, type Matrix, PathBuilder, transformPath } from '@lambent/core/geometry';
import type { Draft } from '../../tools/tool.ts';

/** More nodes than this are not shown before they are made. */
const mostShown = 200_000;

/** Copies as they would lie, to be shown before they are made. */
export function draftOfCopies(items: readonly Item[], maps: readonly Matrix[]): Partial<Draft> {
  const builder = new PathBuilder();
  let nodes = 0;
  for (const map of maps) {
    for (const item of items) {
      const path = pathOf(item);
      nodes += path.verbs.length;
      if (nodes > mostShown) return { outline: builder.build() };
      appendPath(builder, transformPath(path, map), true);
    }
  }
  return { outline: builder.build() };
}
