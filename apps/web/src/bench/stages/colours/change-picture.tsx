import type { KindChange, NearMiss } from '@lambent/core/colours';
import { boundsOfAll, type Item, pathOf } from '@lambent/core/document';
import { type Box, boxHeight, boxWidth, isEmpty, pathData } from '@lambent/core/geometry';
import { operationOf } from '@lambent/core/operations';
import { useMemo } from 'react';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { jobOf } from '../../state/document.ts';

const sentences: Record<KindChange, string> = {
  'line-to-area': t('They are lines now, and would be filled:'),
  'area-to-line': t('They are filled now, and would not be:'),
  'would-burn': t('They do not burn now, and would:'),
};

/** More items, or more nodes in all, are not drawn: the picture is of the first. */
const mostItems = 60;
const mostNodes = 20_000;

/** What treating a paint as meant would make of its items: as they are drawn, and as they would burn. */
export function ChangePicture({ miss, change }: { miss: NearMiss; change: KindChange }) {
  const { items } = useBench((state) => jobOf(state).drawing);
  const layers = useBench((state) => state.prepared.meaning.layers);
  const operation = layers.find(({ id }) => id === miss.layerId)?.operation ?? 'guide';
  const shown = useMemo(() => firstOf(items, miss.paint.itemIds), [items, miss]);
  const box = useMemo(() => boundsOfAll(shown), [shown]);
  const data = useMemo(() => shown.map((item) => pathData(pathOf(item), 2)), [shown]);
  if (isEmpty(box)) return null;
  const { colour } = operationOf(operation);
  const line = Math.max(boxWidth(box), boxHeight(box)) / 50;
  const isLine = miss.paint.part === 'stroke';
  const now = isLine
    ? { fill: 'none', stroke: miss.paint.colour, strokeWidth: line }
    : { fill: miss.paint.colour, stroke: 'none' };
  const then =
    change === 'line-to-area' ? { fill: colour, stroke: 'none' } : { fill: 'none', stroke: colour, strokeWidth: line };
  return (
    <figure className="mt-2 flex flex-col gap-1">
      <figcaption className="text-[12.5px]">{sentences[change]}</figcaption>
      <div className="flex items-center gap-2">
        <Picture box={box} data={data} look={now} label={t('As they are drawn')} pad={line} />
        <span aria-hidden>→</span>
        <Picture box={box} data={data} look={then} label={t('As they would burn')} pad={line} />
      </div>
    </figure>
  );
}

interface PictureProps {
  readonly box: Box;
  readonly data: readonly string[];
  readonly look: { readonly fill: string; readonly stroke: string; readonly strokeWidth?: number };
  readonly label: string;
  readonly pad: number;
}

function Picture({ box, data, look, label, pad }: PictureProps) {
  const view = [box.minX - pad, box.minY - pad, boxWidth(box) + 2 * pad, boxHeight(box) + 2 * pad];
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={view.join(' ')}
      className="h-20 w-[104px] rounded-lg border border-line bg-white p-1"
    >
      {data.map((d, i) => (
        <path key={i} d={d} fillRule="evenodd" {...look} />
      ))}
    </svg>
  );
}

/** The first of some items that can be drawn at once. */
function firstOf(items: readonly Item[], ids: readonly string[]): Item[] {
  const wanted = new Set(ids);
  const out: Item[] = [];
  let nodes = 0;
  for (const item of items) {
    if (!wanted.has(item.id)) continue;
    nodes += pathOf(item).verbs.length;
    if (nodes > mostNodes || out.length >= mostItems) break;
    out.push(item);
  }
  return out;
}
