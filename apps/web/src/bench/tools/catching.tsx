import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { type SnapKind, snapKinds } from '@lambent/core/picking';
import { Magnet } from 'lucide-react';
import { Choice, type Option } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { withKeys } from '../shortcuts.ts';
import { unitOf } from '../state/document.ts';
import type { SnapMode } from '../state/hand.ts';

const words: Record<SnapKind, string> = {
  end: t('Ends and corners'),
  crossing: t('Crossings'),
  centre: t('Centres'),
  middle: t('Middles'),
  quadrant: t('Quarter points'),
  tangent: t('Tangents'),
  perpendicular: t('Right angles'),
  edge: t('Sheets and bed'),
  guide: t('Guide lines'),
  line: t('Lines'),
  spacing: t('Equal gaps'),
  grid: t('Grid'),
};

const modes: readonly Option<SnapMode>[] = [
  { value: 'all', text: t('what is ticked') },
  { value: 'grid', text: t('the grid alone') },
  { value: 'none', text: t('nothing') },
];

const titles: Readonly<Record<SnapMode, () => string>> = {
  all: () => t('{{withKeys}}; Alt suspends it', { withKeys: withKeys(t('Points are caught'), 'catching') }),
  grid: () =>
    t('{{withKeys}}; Alt suspends it', { withKeys: withKeys(t('Points are caught by the grid alone'), 'catching') }),
  none: () => withKeys(t('Points are free'), 'catching'),
};

/** What catches points, kind by kind, the grid, and what arrow keys move by. */
export function Catching() {
  const actions = useBenchActions();
  const snapping = useBench((state) => state.snapping);
  const nudge = useBench((state) => state.toolOptions.nudge);
  const unit = useBench(unitOf);
  const change = actions.setSnapping;
  const toggle = (kind: SnapKind) => {
    const kinds = new Set(snapping.kinds);
    if (!kinds.delete(kind)) kinds.add(kind);
    change({ kinds });
  };
  return (
    <Popover>
      <PopoverButton
        aria-label={t('What catches points')}
        title={titles[snapping.mode]()}
        className={`inline-flex size-8 items-center justify-center rounded-lg hover:bg-petrol-soft ${snapping.mode !== 'none' ? 'bg-petrol-soft text-petrol' : 'text-ink'}`}
      >
        <Magnet size={17} aria-hidden />
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'top end', gap: 10 }}
        className="z-30 flex w-[232px] flex-col gap-2 rounded-xl border border-line bg-paper p-3 shadow-float outline-none"
      >
        <Choice
          label={t('Points are caught by')}
          value={snapping.mode}
          options={modes.filter(({ value }) => value !== 'grid' || snapping.gridMm !== null)}
          choose={(mode) => change({ mode })}
        />
        <div className="grid grid-cols-2 gap-x-2 gap-y-1">
          {snapKinds.map((kind) => (
            <label key={kind} className="flex items-center gap-1.5 whitespace-nowrap text-[12.5px]">
              <input
                type="checkbox"
                disabled={snapping.mode !== 'all'}
                checked={snapping.kinds.has(kind)}
                onChange={() => toggle(kind)}
              />
              {words[kind]}
            </label>
          ))}
        </div>
        <div className="flex gap-2">
          <LengthField
            label={t('Grid (0: none)')}
            unit={unit}
            value={snapping.gridMm ?? 0}
            takes="not-below-0"
            commit={(gridMm) =>
              gridMm === 0
                ? change({ gridMm: null, mode: snapping.mode === 'grid' ? 'all' : snapping.mode })
                : change({ gridMm })
            }
          />
          <LengthField
            label={t('Arrow keys')}
            unit={unit}
            value={nudge}
            takes="more-than-0"
            commit={(step) => actions.setToolOptions({ nudge: step })}
          />
        </div>
      </PopoverPanel>
    </Popover>
  );
}
