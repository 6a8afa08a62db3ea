import { boundsOf, type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf, rectangleOf } from '../document/shapes.ts';
import { tabPoints } from '../fit/tabs.ts';
import type { Point } from '../geometry/paths/matrix.ts';
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
  /** Where tabs would be. */
  readonly dots: readonly Point[];
}

/** What a mend would change of a drawing. */
export function mendPreview(job: JobDocument, mend: Mend): MendPreview {
  const { drawing, tabs } = mended(job, mend);
  const after = drawing.items;
  const before = new Set(job.drawing.items);
  const ids = new Set(after.map(({ id }) => id));
  return {
    outline: pathOfAll(after.filter((item) => !before.has(item))),
    gone: pathOfAll(job.drawing.items.filter(({ id }) => !ids.has(id))),
    dots: tabs.flatMap((tab) => {
      const item = job.tabs.includes(tab) ? undefined : after.find(({ id }) => id === tab.itemId);
      return item ? tabPoints(item, tab.subpath, tab.at) : [];
    }),
  };
}

function pathOfAll(items: readonly Item[]): Path | null {
  if (items.length === 0) return null;
  const isMuch = items.length > mostDrawn;
  const builder = new PathBuilder();
  for (const item of items) appendPath(builder, isMuch ? outlineOf(rectangleOf(boundsOf(item))) : pathOf(item), true);
  return builder.build();
}
