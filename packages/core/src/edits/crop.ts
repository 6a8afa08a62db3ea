import { type Item, pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { areaOf, type FillRule, sizeOfArea } from '../geometry/areas/area.ts';
import { combineOutlines } from '../geometry/areas/combine.ts';
import { invert } from '../geometry/paths/matrix.ts';
import { type Path, transformPath } from '../geometry/paths/path.ts';
import { changeItems } from './items.ts';

/** A change of an area below this share is what rounding makes. */
const leastShare = 1e-6;

/**
 * A picture of which only what lies inside an outline counts, or only what lies outside it.
 * @param outline closed, in bed mm.
 * @returns null where nothing of it is left, and the picture itself where all of it is
 */
export function croppedPicture(
  picture: Item,
  outline: Path,
  rule: FillRule = 'evenodd',
  side: 'inside' | 'outside' = 'inside',
): Item | null {
  const before = pathOf(picture);
  const kept = combineOutlines(
    [
      { path: before, rule: 'nonzero' },
      { path: outline, rule },
    ],
    side === 'inside' ? 'intersect' : 'subtract',
  );
  if (kept.verbs.length === 0) return null;
  const [was, is] = [before, kept].map((path) => sizeOfArea(areaOf(path, 'nonzero')));
  return was - is <= leastShare * was ? picture : withCrop(picture, kept);
}

/** A picture of which what lies in an outline in bed mm counts. */
export function withCrop(picture: Item, kept: Path): Item {
  const { shape, matrix } = picture;
  const back = invert(matrix);
  if (shape.kind !== 'picture' || !back) return picture;
  return { ...picture, shape: { ...shape, crop: transformPath(kept, back) } };
}

/** Crops pictures to what lies in an outline in bed mm; those of which nothing does stay as they are. */
export function cropPictures(job: JobDocument, ids: ReadonlySet<string>, outline: Path): JobDocument {
  return changeItems(job, ids, (item) =>
    item.shape.kind === 'picture' ? (croppedPicture(item, outline) ?? item) : item,
  );
}

/** Brings back what was cropped away of pictures. */
export function uncropPictures(job: JobDocument, ids: ReadonlySet<string>): JobDocument {
  return changeItems(job, ids, (item) => {
    if (item.shape.kind !== 'picture') return item;
    const { crop: _, ...whole } = item.shape;
    return { ...item, shape: whole };
  });
}
