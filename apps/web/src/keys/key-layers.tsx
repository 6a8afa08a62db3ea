import type { ColourKey } from '@lambent/core/colours';
import type { Layer } from '@lambent/core/document';
import { isBurnt, type Operation, operationOf } from '@lambent/core/operations';
import { Trash2 } from 'lucide-react';
import { AnotherLayer } from '../ui/another-layer.tsx';
import { IconButton } from '../ui/button.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { OperationMark } from '../ui/operation-mark.tsx';
import { said, t } from '../words/words.ts';

/** A key while it is edited. */
export interface KeyDraft {
  draft: ColourKey;
  change: (draft: ColourKey) => void;
}

/** The layers rules lead to: named, with what they burn with and where they stand in the order. */
export function KeyLayers({ draft, change }: KeyDraft) {
  const set = (index: number, layer: Layer) =>
    change({ ...draft, layers: draft.layers.map((known, i) => (i === index ? layer : known)) });
  const add = (operation: Operation) => {
    const id = `layer-${crypto.randomUUID().slice(0, 8)}`;
    change({
      ...draft,
      layers: [...draft.layers, { id, name: `${said(operationOf(operation).name)} ${draft.layers.length}`, operation }],
    });
  };
  const used = new Set(draft.rules.map(({ layerId }) => layerId));
  return (
    <section className="mt-6">
      <h2 className="mb-1.5 font-bold">{t('Layers')}</h2>
      <ul className="flex flex-col gap-1.5">
        {draft.layers.map((layer, i) => (
          <li
            key={layer.id}
            className="flex items-center gap-2 rounded-[10px] border border-line bg-raised px-2.5 py-1.5"
          >
            <OperationMark operation={layer.operation} />
            <input
              aria-label={t('Name of layer {{i}}', { i: i + 1 })}
              value={layer.name}
              maxLength={60}
              onChange={(event) => set(i, { ...layer, name: event.target.value })}
              className="min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 font-semibold hover:border-line focus:border-petrol focus:outline-none"
            />
            {isBurnt(layer.operation) && (
              <>
                <div className="w-[150px]" title={t('The share of the recipe’s power that this layer burns with')}>
                  <NumberField
                    label={t('of its power')}
                    unit="%"
                    value={(layer.powerShare ?? 1) * 100}
                    least={1}
                    most={100}
                    commit={(share) => {
                      const { powerShare: _, ...rest } = layer;
                      set(i, share === 100 ? rest : { ...rest, powerShare: share / 100 });
                    }}
                  />
                </div>
                <div className="w-[92px]" title={t('Its place among layers of its operation: lower ones burn first')}>
                  <NumberField
                    label={t('rank')}
                    value={layer.rank ?? 0}
                    least={0}
                    most={99}
                    whole
                    commit={(rank) => {
                      const { rank: _, ...rest } = layer;
                      set(i, rank === 0 ? rest : { ...rest, rank });
                    }}
                  />
                </div>
              </>
            )}
            <IconButton
              label={
                used.has(layer.id)
                  ? t('{{name}} has rules', { name: layer.name })
                  : t('Take {{name}} away', { name: layer.name })
              }
              className="size-7"
              disabled={used.has(layer.id)}
              onClick={() => change({ ...draft, layers: draft.layers.filter(({ id }) => id !== layer.id) })}
            >
              <Trash2 size={14} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <div className="mt-2">
        <AnotherLayer add={add} />
      </div>
    </section>
  );
}
