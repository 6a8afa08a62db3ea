import { drawnPaint, paintOfRule } from '@lambent/core/colours';
import type { Paint } from '@lambent/core/document';
import { paintLike } from '@lambent/core/edits';
import type { Operation } from '@lambent/core/operations';
import { PanelRightClose, PanelRightOpen } from 'lucide-react';
import { useMemo } from 'react';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { IconButton } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { useBench, useBenchActions } from './context.ts';
import { useOwnLayers } from './use-own-layers.ts';

/** Whether the legend says names beside its colours; remembered in this browser. */
const useLegend = create<{ readonly isWide: boolean }>()(
  persist((): { isWide: boolean } => ({ isWide: false }), { name: 'colour-legend' }),
);

/** One colour of the key, and the layer that it means. */
interface Entry {
  readonly id: string;
  readonly paint: Paint;
  readonly layerId: string;
  readonly layerName: string;
  readonly operation: Operation;
}

/**
 * The key's colours beside the bed. At the Art stage one press paints the selection, or says what is drawn next; elsewhere it
 * selects what is on the layer.
 */
export function ColourLegend({ isArt }: { isArt: boolean }) {
  const entries = useEntries();
  const isWide = useLegend((legend) => legend.isWide);
  if (entries.length === 0) return null;
  return (
    <aside
      aria-label={t('Colours of the key')}
      className={`flex shrink-0 flex-col border-l border-line bg-paper py-1.5 max-xl:hidden ${isWide ? 'w-[132px] px-1.5' : 'w-11 items-center'}`}
    >
      <IconButton
        label={isWide ? t('Colours alone') : t('Colours with their names')}
        className="size-8 self-center pointer-coarse:size-11"
        onClick={() => useLegend.setState({ isWide: !isWide })}
      >
        {isWide ? <PanelRightClose size={15} aria-hidden /> : <PanelRightOpen size={15} aria-hidden />}
      </IconButton>
      <ul className="flex min-h-0 flex-col gap-0.5 overflow-y-auto">
        {entries.map((entry) => (
          <li key={entry.id}>
            <ColourButton entry={entry} isWide={isWide} isArt={isArt} />
          </li>
        ))}
      </ul>
    </aside>
  );
}

/** The colours that the key names, each as its first rule has it. */
function useEntries(): Entry[] {
  const key = useBench((state) => state.prepared.key);
  const layers = useOwnLayers();
  return useMemo(() => {
    const byId = new Map(layers.map((layer) => [layer.id, layer]));
    const seen = new Set<string>();
    return key.rules.flatMap((rule): Entry[] => {
      const paint = paintOfRule(rule);
      const layer = byId.get(rule.layerId);
      const id = `${rule.part} ${rule.colour} ${rule.layerId}`;
      if (!paint || !layer || seen.has(id)) return [];
      seen.add(id);
      return [{ id, paint, layerId: layer.id, layerName: layer.name, operation: layer.operation }];
    });
  }, [key, layers]);
}

function ColourButton({ entry, isWide, isArt }: { entry: Entry; isWide: boolean; isArt: boolean }) {
  const { paint, layerId, layerName, operation } = entry;
  const actions = useBenchActions();
  const key = useBench((state) => state.prepared.key);
  const isDrawn = useBench((state) => state.toolOptions.operation === operation);
  const selected = useBench((state) => state.selection.size);
  const colour = paint.stroke ?? paint.fill ?? '';
  const isUsual = drawnPaint(key, operation).paint[paint.stroke ? 'stroke' : 'fill'] === colour;
  const what = !isArt
    ? t('selects what is on it')
    : selected > 0
      ? t('paints the selection')
      : t('is what is drawn next');
  const itemIds = () => (actions.get().prepared.meaning.placed.get(layerId) ?? []).map(({ item }) => item.id);
  const press = () => {
    if (!isArt) actions.select(itemIds());
    else if (actions.get().selection.size > 0) {
      actions.edit(t('paint as {{layerName}}', { layerName }), (job) =>
        paintLike(job, actions.get().selection, { paint, pinned: null }),
      );
    } else actions.setToolOptions({ operation });
  };
  return (
    <button
      type="button"
      aria-label={t('{{layerName}}, {{stroke}} of {{colour}}', {
        layerName,
        stroke: paint.stroke ? t('lines') : t('areas'),
        colour,
      })}
      title={t('{{layerName}}, {{stroke}} of {{colour}}: {{what}}', {
        layerName,
        stroke: paint.stroke ? t('lines') : t('areas'),
        colour,
        what,
      })}
      aria-pressed={isArt ? isDrawn && isUsual : undefined}
      onClick={press}
      onPointerEnter={() => actions.pointOut(itemIds())}
      onPointerLeave={() => actions.pointOut([])}
      className="flex h-8 w-full min-w-9 items-center justify-center gap-2 rounded-lg border border-transparent px-1 text-left hover:border-petrol aria-pressed:bg-petrol-soft pointer-coarse:h-11 pointer-coarse:min-w-11"
    >
      <svg width={20} height={16} className="shrink-0" aria-hidden>
        {paint.stroke ? (
          <path d="M1 8H19" stroke={colour} strokeWidth={3} />
        ) : (
          <rect x={1.5} y={1.5} width={17} height={13} rx={3} fill={colour} stroke="var(--line)" />
        )}
      </svg>
      {isWide && <span className="min-w-0 flex-1 truncate text-[12px]">{layerName}</span>}
    </button>
  );
}
