import { type Built, inRows, type Sources, scoredOf } from '@lambent/core/builders';
import { type BuiltThing, boundsOf, type Item, outlineOf } from '@lambent/core/document';
import {
  appendPath,
  type Box,
  boxContains,
  emptyPath,
  flatten,
  identity,
  invert,
  type Matrix,
  multiply,
  type Path,
  PathBuilder,
  type Point,
  pathBounds,
  transformPath,
  translation,
} from '@lambent/core/geometry';
import { useEffect, useMemo, useState } from 'react';
import { usePictures } from '../../../bed/use-pictures.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { jobOf } from '../../../state/document.ts';
import { gapMm, type PartsPlace } from './put-parts.ts';
import type { Marks } from './together/assembly-scene.ts';
import { type FacePicture, facePicture } from './together/face-picture.ts';

/** A part as it lies on the bed. */
interface FlatPart {
  readonly partId: string;
  /** Of what is cut, in bed mm. */
  readonly box: Box;
  readonly outline: Path;
  readonly scored: Path;
  /** From the part's frame to the bed. */
  readonly matrix: Matrix;
  /** What is cut of it; null while it is not put down. */
  readonly item: Item | null;
}

/** The parts of something as they lie on the bed, or as they would: those of outlines that are there lie where these do. */
export function useFlatParts(
  thing: BuiltThing | null,
  built: Built | null,
  place: PartsPlace,
  sources: Sources | null,
): readonly FlatPart[] {
  const items = useBench((state) => jobOf(state).drawing.items);
  return useMemo(() => {
    if (thing) {
      return items.flatMap((item): FlatPart[] => {
        if (item.part?.thingId !== thing.id || item.part.what !== 'cut') return [];
        const outline = transformPath(outlineOf(item.shape), item.matrix);
        const { partId } = item.part;
        return [{ partId, box: boundsOf(item), outline, scored: emptyPath, matrix: item.matrix, item }];
      });
    }
    if (!built) return [];
    const { places } = inRows(built.parts, place.rowMm, gapMm);
    return built.parts.map((part, i): FlatPart => {
      const matrix = sources?.places[i] ?? multiply(translation(place.x, place.y), places[i]);
      const outline = transformPath(part.cut, matrix);
      const scored = transformPath(scoredOf(part), matrix);
      return { partId: part.id, box: pathBounds(outline), outline, scored, matrix, item: null };
    });
  }, [thing, built, place, items, sources]);
}

/** Which part is pointed out, on the bed or in the picture of all; it is shown on the bed, as are parts that are not put down, and what numbers mark. */
export function useLitPart(parts: readonly FlatPart[], marked: Path | null) {
  const actions = useBenchActions();
  const under = useBench(({ pointer }) => (pointer && partUnder(parts, pointer)?.partId) ?? null);
  const [lit, light] = useState<string | null>(null);
  useEffect(() => light(under), [under]);
  const shown = parts.find(({ partId }) => partId === lit) ?? null;
  const fresh = useMemo(() => newOnes(parts), [parts]);
  useEffect(() => {
    actions.showDraft(fresh || marked ? { ...fresh, marked, lit: shown?.outline ?? null } : null);
    actions.pointOut(shown?.item ? [shown.item.id] : []);
  }, [actions, fresh, marked, shown]);
  useEffect(
    () => () => {
      actions.showDraft(null);
      actions.pointOut([]);
    },
    [actions],
  );
  return { lit, light };
}

/** Of parts whose bounds hold a point, the smallest. */
function partUnder(parts: readonly FlatPart[], { x, y }: Point): FlatPart | undefined {
  const point = { minX: x, minY: y, maxX: x, maxY: y };
  const sizeOf = ({ box }: FlatPart) => (box.maxX - box.minX) * (box.maxY - box.minY);
  return parts.filter(({ box }) => boxContains(box, point)).sort((a, b) => sizeOf(a) - sizeOf(b))[0];
}

/** What is cut and what is scored of parts that are not put down; null where all are. */
function newOnes(parts: readonly FlatPart[]): { outline: Path; dashed: Path } | null {
  const fresh = parts.filter(({ item }) => item === null);
  if (fresh.length === 0) return null;
  const [cut, score] = [new PathBuilder(), new PathBuilder()];
  for (const { outline, scored } of fresh) {
    appendPath(cut, outline, true);
    appendPath(score, scored, true);
  }
  return { outline: cut.build(), dashed: score.build() };
}

/** What is scored on each part, and what else lies on it: lines and pictures, in the part's frame. */
export function useMarks(built: Built | null, parts: readonly FlatPart[]): Marks {
  const items = useBench((state) => jobOf(state).drawing.items);
  const ready = usePictures();
  // biome-ignore lint/correctness/useExhaustiveDependencies: pictures show when they are there
  return useMemo(() => {
    const on = new Map(parts.map((part) => [part.partId, part]));
    return new Map(
      (built?.parts ?? []).map((part) => {
        const lines = linesOf(scoredOf(part), identity);
        const pictures: FacePicture[] = [];
        const { box, matrix, item: cut } = on.get(part.id) ?? {};
        const back = cut && matrix && invert(matrix);
        if (back && box) {
          for (const item of items) {
            if (item.part || !boxContains(box, boundsOf(item))) continue;
            const picture = facePicture(item, back, part.cut);
            if (picture) pictures.push(picture);
            if (item.shape.kind !== 'picture')
              lines.push(...linesOf(outlineOf(item.shape), multiply(back, item.matrix)));
          }
        }
        return [part.id, { lines, pictures }] as const;
      }),
    );
  }, [built, parts, items, ready]);
}

/** Lines as points one after the other, closed ones with their start at their end. */
function linesOf(path: Path, matrix: Matrix): Float64Array[] {
  return flatten(transformPath(path, matrix)).map(({ points, closed }) =>
    closed ? Float64Array.from([...points, points[0], points[1]]) : points,
  );
}
