import { mergeLayer, setLayer, switchLayer } from '@lambent/core/edits';
import type { PreparedLayer } from '@lambent/core/plan';
import { useState } from 'react';
import { Choice } from '../../ui/choice.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { lowered, t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf } from '../state/document.ts';
import { ownLayers } from '../use-own-layers.ts';
import { LayerBurningFields } from './layer-burning.tsx';
import { LayerSettingsFields, sourceWords } from './layer-settings.tsx';

/** Everything about one layer: its name, what it burns with, in which order, and in which runs. */
export function LayerPopover({ prepared, done }: { prepared: PreparedLayer; done: () => void }) {
  const { layer, material, applied } = prepared;
  const several = useBench((state) => state.prepared.layers.filter(({ layer: { id } }) => id === layer.id).length > 1);
  return (
    <section aria-label={t('Layer {{name}}', { name: layer.name })} className="flex flex-col gap-2.5">
      <div className="flex items-center gap-2">
        <OperationMark operation={layer.operation} />
        <LayerName layer={layer} />
        <span className="shrink-0 text-[12px] text-quiet">{sourceWords(applied.sources)}</span>
      </div>
      {several && (
        <p className="text-[12px] text-quiet">
          {t('On {{material}}', { material: material ? lowered(material.name) : t('no material') })}
        </p>
      )}
      <div>
        <LayerSettingsFields prepared={prepared} />
      </div>
      <LayerBurningFields prepared={prepared} done={done} />
      <InRuns layerId={layer.id} name={layer.name} />
      <MergeInto prepared={prepared} done={done} />
    </section>
  );
}

/** A layer's name, to be changed where it stands. */
export function LayerName({ layer }: { layer: PreparedLayer['layer'] }) {
  const actions = useBenchActions();
  const [typed, setTyped] = useState<string | null>(null);
  const rename = () => {
    const name = typed?.trim();
    setTyped(null);
    if (name && name !== layer.name)
      actions.edit(t('name of {{name}}', { name: layer.name }), (job) => setLayer(job, { ...layer, name }));
  };
  return (
    <input
      aria-label={t('Name of the layer {{name}}', { name: layer.name })}
      value={typed ?? layer.name}
      maxLength={60}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={rename}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') {
          setTyped(null);
          event.stopPropagation();
        }
      }}
      className="-ml-1 min-w-0 flex-1 truncate rounded border border-transparent bg-transparent px-1 font-bold hover:border-line"
    />
  );
}

/** Of a job with several runs: in which of them the layer burns. */
function InRuns({ layerId, name }: { layerId: string; name: string }) {
  const actions = useBenchActions();
  const runs = useBench((state) => jobOf(state).runs);
  if (runs.length < 2) return null;
  return (
    <fieldset className="flex flex-wrap gap-x-3 gap-y-1">
      <legend className="mb-1 text-quiet">{t('Burns in')}</legend>
      {runs.map((run) => {
        const on = !run.off.includes(layerId);
        return (
          <label key={run.id} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={on}
              onChange={() =>
                actions.edit(
                  on
                    ? t('{{layer}} out of {{run}}', { layer: name, run: run.name })
                    : t('{{layer}} into {{run}}', { layer: name, run: run.name }),
                  (job) => switchLayer(job, layerId, !on, run.id),
                )
              }
            />
            {run.name}
          </label>
        );
      })}
    </fieldset>
  );
}

function MergeInto({ prepared, done }: { prepared: PreparedLayer; done: () => void }) {
  const actions = useBenchActions();
  const { layer } = prepared;
  const { layers, paints } = useBench((state) => state.prepared.meaning);
  const others = ownLayers(layers).filter(({ id, operation }) => id !== layer.id && operation === layer.operation);
  if (others.length === 0) return null;
  return (
    <Choice
      label={t('Put all of it on another layer')}
      bare
      value={null}
      empty={t('Put all of it on another layer')}
      options={others.map(({ id, name, operation }) => ({
        value: id,
        text: name,
        mark: <OperationMark operation={operation} />,
      }))}
      choose={(into) => {
        const own = paints.filter(({ layerId }) => layerId === layer.id);
        const name = others.find(({ id }) => id === into)?.name ?? into;
        actions.edit(t('merge {{name}} into {{name2}}', { name: layer.name, name2: name }), (job) =>
          mergeLayer(job, layer.id, into, own),
        );
        done();
      }}
    />
  );
}
