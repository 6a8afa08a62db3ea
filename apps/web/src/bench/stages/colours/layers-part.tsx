import { cardOfLayer, type Layer } from '@lambent/core/document';
import { pinItems, setLayer } from '@lambent/core/edits';
import { gatherBy } from '@lambent/core/lists';
import { type Operation, operationOf } from '@lambent/core/operations';
import { useMemo } from 'react';
import { AnotherLayer } from '../../../ui/another-layer.tsx';
import { Button } from '../../../ui/button.tsx';
import { counted } from '../../../ui/counted.ts';
import { OperationMark } from '../../../ui/operation-mark.tsx';
import { said, t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { LayerName } from '../../layer/layer-popover.tsx';
import { newId } from '../../new-id.ts';
import { jobOf } from '../../state/document.ts';
import { useOwnLayers } from '../../use-own-layers.ts';
import { Part } from '../drawer.tsx';

/** The job's layers: named where they stand, and more of them made. */
export function LayersPart() {
  const actions = useBenchActions();
  const placed = useBench((state) => state.prepared.meaning.placed);
  const layers = useOwnLayers();
  const add = (operation: Operation) => {
    const alike = layers.filter((layer) => layer.operation === operation).length;
    const layer: Layer = { id: newId(), name: `${said(operationOf(operation).name)} ${alike + 1}`, operation };
    actions.edit(t('add the layer {{name}}', { name: layer.name }), (job) => setLayer(job, layer));
  };
  return (
    <Part title={t('Layers')} folds>
      <ul className="flex flex-col">
        {layers.map((layer) => {
          const items = placed.get(layer.id) ?? [];
          return (
            <li
              key={layer.id}
              className="flex items-center gap-2 rounded-lg px-1.5 py-0.5 hover:bg-table"
              onPointerEnter={() => actions.pointOut(items.map(({ item }) => item.id))}
              onPointerLeave={() => actions.pointOut([])}
            >
              <OperationMark operation={layer.operation} />
              <LayerName layer={layer} />
              <button
                type="button"
                title={t('Select its items')}
                disabled={items.length === 0}
                onClick={() => actions.select(items.map(({ item }) => item.id))}
                className="figures shrink-0 text-[12px] text-quiet hover:text-ink"
              >
                {items.length}
              </button>
            </li>
          );
        })}
      </ul>
      <AnotherLayer add={add} />
    </Part>
  );
}

/** What was put on layers by hand, over the key. */
export function PinnedPart() {
  const actions = useBenchActions();
  const drawing = useBench((state) => jobOf(state).drawing);
  const layers = useBench((state) => state.prepared.meaning.layers);
  const pinned = useMemo(() => {
    const byLayer = [...gatherBy(drawing.items, ({ pinned }) => pinned)];
    return byLayer.flatMap(([layerId, items]) =>
      cardOfLayer(layerId) === null ? [[layerId, items.map(({ id }) => id)] as const] : [],
    );
  }, [drawing]);
  if (pinned.length === 0) return null;
  const unpin = (ids: readonly string[]) =>
    actions.edit(t('unpin {{items}}', { items: counted(ids.length, 'item') }), (job) =>
      pinItems(job, new Set(ids), null),
    );
  return (
    <Part title={t('Pinned by hand: {{reduce}}', { reduce: pinned.reduce((sum, [, ids]) => sum + ids.length, 0) })}>
      <ul className="flex flex-col">
        {pinned.map(([layerId, ids]) => (
          <li
            key={layerId}
            className="flex items-center gap-2 rounded-lg pl-2 hover:bg-table"
            onPointerEnter={() => actions.pointOut(ids)}
            onPointerLeave={() => actions.pointOut([])}
          >
            <span className="min-w-0 flex-1 truncate">
              {layers.find(({ id }) => id === layerId)?.name ?? t('a layer that is gone')}
            </span>
            <span className="figures text-[12px] text-quiet">{ids.length}</span>
            <Button look="quiet" onClick={() => actions.select(ids)}>
              {t('Select')}
            </Button>
            <Button look="quiet" onClick={() => unpin(ids)}>
              {t('Unpin')}
            </Button>
          </li>
        ))}
      </ul>
    </Part>
  );
}
