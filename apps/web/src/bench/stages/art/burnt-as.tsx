import { cardOfLayer, itemsAmong } from '@lambent/core/document';
import { alsoOn, pinItems } from '@lambent/core/edits';
import { isBurnt } from '@lambent/core/operations';
import { Pin } from 'lucide-react';
import { useMemo } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { OperationMark } from '../../../ui/operation-mark.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions, useBenchLater, useSelected } from '../../context.ts';
import { jobOf } from '../../state/document.ts';
import { ownLayers } from '../../use-own-layers.ts';

/** The layer the selection is on, and putting it on another by hand, over the key. */
export function BurntAs() {
  const actions = useBenchActions();
  const { drawing, selection } = useSelected();
  const runs = useBench((state) => jobOf(state).runs);
  const { layers, placed } = useBenchLater((state) => state.prepared.meaning);
  const { on, pinned, also } = useMemo(() => {
    const chosen = itemsAmong(drawing, selection);
    const layerIds =
      chosen.length === 0 ? [] : layers.filter(({ id }) => placed.get(id)?.some(({ item }) => selection.has(item.id)));
    const also = layers.filter(({ id }) => chosen.some((item) => item.also === id));
    return { on: layerIds, pinned: chosen.filter((item) => item.pinned !== null).length, also };
  }, [layers, placed, selection, drawing]);
  const value = on.length === 1 ? on[0].id : null;
  const pin = (layerId: string | null) =>
    actions.edit(
      layerId === null ? 'unpin' : t('pin to {{name}}', { name: layers.find(({ id }) => id === layerId)?.name }),
      (job) => pinItems(job, actions.get().selection, layerId),
    );
  // Of a job with several runs: those in which all or some of it burns.
  const inRuns = runs.filter(
    ({ off, only }) =>
      on.some(({ id, operation }) => isBurnt(operation) && !off.includes(id)) &&
      (only === null || only.some((id) => selection.has(id))),
  );
  return (
    <>
      <div className="flex items-center gap-1.5">
        <div className="min-w-0 flex-1">
          <Choice
            label={t('Layer of the selection')}
            bare
            value={value}
            empty={on.length > 1 ? t('On {{on}} layers', { on: on.length }) : t('On no layer yet')}
            icon={pinned > 0 ? <Pin size={14} className="shrink-0 text-petrol" aria-hidden /> : undefined}
            options={[...ownLayers(layers), ...on.filter(({ id }) => cardOfLayer(id) !== null)].map(
              ({ id, name, operation }) => ({
                value: id,
                text: name,
                aside: isBurnt(operation) ? undefined : t('not burnt'),
                mark: <OperationMark operation={operation} />,
              }),
            )}
            choose={pin}
          />
        </div>
        {pinned > 0 && (
          <Button title={t('Hands it back to the colour key')} onClick={() => pin(null)}>
            {t('Unpin')}
          </Button>
        )}
      </div>
      {also.length > 0 && (
        <div className="flex items-center justify-between gap-1.5 text-[12px] text-quiet">
          <span>{t('The outline burns on {{also}} as well', { also: also.map(({ name }) => name).join(', ') })}</span>
          <Button
            look="quiet"
            onClick={() => actions.edit(t('burn on one layer'), (job) => alsoOn(job, actions.get().selection, null))}
          >
            {t('Take back')}
          </Button>
        </div>
      )}
      {runs.length > 1 && (
        <p className="text-[12px] text-quiet">
          {inRuns.length > 0
            ? t('Burns in {{inRuns}}', { inRuns: inRuns.map(({ name }) => name).join(', ') })
            : t('Burns in no run')}
        </p>
      )}
    </>
  );
}
