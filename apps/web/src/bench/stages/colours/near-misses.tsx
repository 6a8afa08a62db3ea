import { keyThatTakes, kindChangeOf, type NearMiss, nearMisses } from '@lambent/core/colours';
import type { JobDocument } from '@lambent/core/document';
import { assignPaint } from '@lambent/core/edits';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../../api.ts';
import { Button } from '../../../ui/button.tsx';
import { fixed } from '../../../ui/figures.ts';
import { lowered, t } from '../../../words/words.ts';
import { showItems } from '../../bed/showing.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { ChangePicture } from './change-picture.tsx';
import { Swatch } from './swatch.tsx';

const shownAtFirst = 2;

/** Paints that are nearly one that means something: both colours, how far apart, and what to do. */
export function NearMisses() {
  const actions = useBenchActions();
  const { meaning, key } = useBench((state) => state.prepared);
  const misses = useMemo(() => nearMisses(meaning.paints, key), [meaning, key]);
  const [all, setAll] = useState(false);
  if (misses.length === 0) return null;
  const shown = all ? misses : misses.slice(0, shownAtFirst);
  // What would become something else is asked one by one.
  const plain = misses.filter((miss) => kindChangeOf(miss, meaning.layers) === null);
  const treatAll = () =>
    actions.edit(t('treat {{plain}} paints as meant', { plain: plain.length }), (job) =>
      plain.reduce<JobDocument>((done, { paint, layerId }) => assignPaint(done, paint, layerId), job),
    );
  return (
    <div className="flex flex-col gap-2">
      {shown.map((miss) => (
        <Miss key={`${miss.paint.part} ${miss.paint.colour} ${miss.paint.widthMm}`} miss={miss} />
      ))}
      {misses.length > 1 && (
        <div className="flex items-center justify-between">
          {plain.length > 1 ? (
            <Button onClick={treatAll}>
              {t(plain.length === misses.length ? 'Treat all {{plain}} as meant' : 'Treat the {{plain}} as meant', {
                plain: plain.length,
              })}
            </Button>
          ) : (
            <span />
          )}
          {misses.length > shownAtFirst && (
            <Button look="quiet" onClick={() => setAll(!all)}>
              {all ? t('Show fewer') : t('{{misses}} more', { misses: misses.length - shownAtFirst })}
            </Button>
          )}
        </div>
      )}
    </div>
  );
}

function Miss({ miss }: { miss: NearMiss }) {
  const actions = useBenchActions();
  const { paint, kind, meant, layerId, distance, rule } = miss;
  const layers = useBench((state) => state.prepared.meaning.layers);
  const change = kindChangeOf(miss, layers);
  const layer = useBench((state) => state.prepared.meaning.layers.find(({ id }) => id === layerId)?.name ?? layerId);
  const count = paint.itemIds.length;
  const what = `${count} ${count === 1 ? t('item is') : t('items are')}`;
  const title = {
    near: t('Almost the {{layer}} colour', { layer: lowered(layer) }),
    converted: t('The {{layer}} colour, out of print', { layer: lowered(layer) }),
    alike: t('Looks like what is on {{layer}}', { layer }),
  }[kind];
  const treat = () =>
    actions.edit(t('treat {{colour}} as {{layer}}', { colour: paint.colour, layer }), (job) =>
      assignPaint(job, paint, layerId),
    );
  const inKey = async () => {
    const { prepared, shop } = actions.get();
    try {
      const changed = await api.changeKey(keyThatTakes(prepared.key, paint, layerId, rule));
      actions.takeShop({ ...shop, keys: shop.keys.map((known) => (known.id === changed.id ? changed : known)) });
      toast.success(
        t('“{{name}}” takes {{colour}} as {{layer}} from now on.', { name: changed.name, colour: paint.colour, layer }),
      );
    } catch (error) {
      toast.error(t('The key was not changed. {{error}}', { error: sentenceOf(error) }));
    }
  };
  return (
    <section
      aria-label={title}
      data-testid="near-miss"
      className="rounded-[10px] border border-warn/40 bg-warn-soft p-3"
      onPointerEnter={() => actions.pointOut(paint.itemIds)}
      onPointerLeave={() => actions.pointOut([])}
    >
      <p className="flex items-center gap-2 font-semibold">
        <span className="flex shrink-0 overflow-hidden rounded-md border border-line">
          <Swatch part="fill" colour={paint.colour} joined />
          <Swatch part="fill" colour={meant} joined />
        </span>
        {title}
      </p>
      <p className="mt-1 text-[12.5px] text-warn">
        {what} <span className="figures">{paint.colour}</span>
        {t(', {{distance}} away from', { distance: fixed(distance, 1) })} <span className="figures">{meant}</span>.{' '}
        {kind === 'alike'
          ? t('They may be meant as one.')
          : t('{{counted}} would not burn.', { counted: count === 1 ? t('It') : t('They') })}
      </p>
      {change && <ChangePicture miss={miss} change={change} />}
      <div className="mt-1.5 flex flex-wrap gap-x-4 font-semibold text-petrol">
        <button type="button" className="hover:underline" onClick={treat}>
          {t('Treat as {{layer}}', { layer: lowered(layer) })}
        </button>
        {kind !== 'alike' && (
          <button
            type="button"
            className="hover:underline"
            title={t('For every job that goes by this key')}
            onClick={() => void inKey()}
          >
            {t('In the key too')}
          </button>
        )}
        <button type="button" className="hover:underline" onClick={() => showItems(actions, paint.itemIds)}>
          {t('Show')}
        </button>
      </div>
    </section>
  );
}
