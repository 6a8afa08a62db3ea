import { boundsOf, type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf, rectangleOf } from '../document/shapes.ts';
import { appendPath, type Path, PathBuilder } from '../geometry/paths/path.ts';
import { type Mend, mended } from './mend.ts';

/** More items than these are shown by their frames alone. */
const mostDrawn = 2000;

/** What a mend would change, to be shown beside what is: in bed mm, null where there is nothing of it. */
export interface MendPreview {
  /** The outlines as they would be. */
  readonly outline: Path | null;
  /** What would go. */
  readonly gone: Path | null;
}

/** What a mend would change of a drawing. */
export function mendPreview(job: JobDocument, mend: Mend): MendPreview {
  const after = mended(job, mend).drawing.items;
  const before = new Set(job.drawing.items);
  const ids = new Set(after.map(({ id }) => id));
  return {
    outline: pathOfAll(after.filter((item) => !before.has(item))),
    gone: pathOfAll(job.drawing.items.filter(({ id }) => !ids.has(id))),
  };
}

function pathOfAll(items: readonly Item[]): Path | null {
  if (items.length === 0) return null;
  const isMuch = items.length > mostDrawn;
  const builder = new PathBuilder();
  for (const item of items) appendPath(builder, isMuch ? outlineOf(rectangleOf(boundsOf(item))) : pathOf(item), true);
  return builder.build();
}
