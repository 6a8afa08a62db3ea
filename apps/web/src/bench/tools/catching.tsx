import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { type SnapKind, snapKinds } from '@lambent/core/picking';
import { Magnet } from 'lucide-react';
import { LengthField } from '../../ui/length-field.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { withKeys } from '../shortcuts.ts';
import { unitOf } from '../state/document.ts';

const words: Record<SnapKind, string> = {
  end: 'Ends and corners',
  crossing: 'Crossings',
  centre: 'Centres',
  middle: 'Middles',
  quadrant: 'Quarter points',
  tangent: 'Tangents',
  perpendicular: 'Right angles',
  edge: 'Sheets and bed',
  guide: 'Guide lines',
  line: 'Lines',
  spacing: 'Equal gaps',
  grid: 'Grid',
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
        aria-label="What catches points"
        title={
          snapping.on
            ? `${withKeys('Points are caught', 'catching')}; Alt suspends it`
            : withKeys('Points are free', 'catching')
        }
        className={`inline-flex size-8 items-center justify-center rounded-lg hover:bg-petrol-soft ${snapping.on ? 'bg-petrol-soft text-petrol' : 'text-ink'}`}
      >
        <Magnet size={17} aria-hidden />
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'top end', gap: 10 }}
        className="z-30 flex w-[232px] flex-col gap-2 rounded-xl border border-line bg-paper p-3 shadow-float outline-none"
      >
        <label className="flex items-center gap-2 font-semibold">
          <input type="checkbox" checked={snapping.on} onChange={(event) => change({ on: event.target.checked })} />
          Points are caught by
        </label>
        <div className="grid grid-cols-2 gap-x-2 gap-y-1">
          {snapKinds.map((kind) => (
            <label key={kind} className="flex items-center gap-1.5 whitespace-nowrap text-[12.5px]">
              <input
                type="checkbox"
                disabled={!snapping.on}
                checked={snapping.kinds.has(kind)}
                onChange={() => toggle(kind)}
              />
              {words[kind]}
            </label>
          ))}
        </div>
        <div className="flex gap-2">
          <LengthField
            label="Grid (0: none)"
            unit={unit}
            value={snapping.gridMm ?? 0}
            takes="not-below-0"
            commit={(gridMm) => change({ gridMm: gridMm === 0 ? null : gridMm })}
          />
          <LengthField
            label="Arrow keys"
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
