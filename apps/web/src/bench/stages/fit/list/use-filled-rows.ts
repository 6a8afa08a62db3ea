import type { Item, RowList } from '@lambent/core/document';
import { isBurnt } from '@lambent/core/operations';
import type { FilledRows } from '@lambent/core/rows';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { wholeDayOf } from '../../../../stores/dates.ts';
import { work } from '../../../../workers/work.ts';
import { useBench } from '../../../context.ts';
import type { BenchState } from '../../../state/bench-state.ts';

/** The rows of a list, filled, and whether that is the list as it is now. */
export interface Filled {
  readonly rows: FilledRows | null;
  readonly isWorking: boolean;
  /** Why they could not be filled. */
  readonly trouble: Error | null;
}

/** A design for each row of a list, worked out off the page whenever one of them changes. */
export function useFilledRows(list: RowList | null, design: readonly Item[]): Filled {
  const prepared = useBench((state) => state.prepared);
  const materials = useBench((state) => state.shop.materials);
  const leastSizes = useMemo(() => leastSizesOf(prepared, materials, design), [prepared, materials, design]);
  const day = wholeDayOf(new Date());
  const answer = useQuery({
    // The items, the rows and the heights are compared by what they hold, which is little beside their outlines.
    queryKey: ['filled rows', list?.columns, list?.rows, design.map(({ shape }) => shape), day, [...leastSizes]],
    queryKeyHashFn: ([, columns, rows, shapes, , heights]) =>
      hashOf([columns, rows, ...(shapes as unknown[])], heights),
    queryFn: () =>
      work('filledRows', [design, { columns: list?.columns ?? [], rows: list?.rows ?? [] }, day, leastSizes]),
    enabled: list !== null && design.length > 0,
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    retry: false,
  });
  return {
    rows: answer.data ?? null,
    isWorking: answer.isPending || answer.isPlaceholderData,
    trouble: answer.error,
  };
}

const numbers = new WeakMap<object, number>();
let next = 0;

/** A name for values that are never changed: by which objects they are. */
function hashOf(objects: readonly unknown[], rest: unknown): string {
  const numberOf = (thing: unknown) => {
    if (typeof thing !== 'object' || thing === null) return 0;
    const known = numbers.get(thing) ?? ++next;
    numbers.set(thing, known);
    return known;
  };
  return JSON.stringify([objects.map(numberOf), rest]);
}

/**
 * How small parts of each item may become, in mm, by its id. Of texts, how low capitals may be, as the materials of the job hold
 * them. Of codes, how wide the beam is that burns them.
 */
function leastSizesOf(
  { meaning, job, layers }: BenchState['prepared'],
  materials: BenchState['shop']['materials'],
  design: readonly Item[],
): ReadonlyMap<string, number> {
  const used = materials.filter(({ id }) => job.sheets.some(({ materialId }) => materialId === id));
  return new Map(
    design.map((item) => {
      const own = meaning.layers.filter(({ id }) =>
        meaning.placed.get(id)?.some((placed) => placed.item.id === item.id),
      );
      const beams = layers.flatMap(({ layer: { id }, applied: { settings } }) =>
        own.some((layer) => layer.id === id) ? [settings?.kerfMm ?? 0, settings?.lineSpacingMm ?? 0] : [],
      );
      const heights = own.flatMap(({ operation }) =>
        used.flatMap(({ leastSizes }) => (isBurnt(operation) ? (leastSizes?.[operation]?.letterMm ?? []) : [])),
      );
      return [item.id, Math.max(0, ...(item.shape.kind === 'code' ? beams : heights))];
    }),
  );
}
