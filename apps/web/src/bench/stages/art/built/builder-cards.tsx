import { builders } from '@lambent/core/builders';
import { Box, Frame, Grid3x3, Layers, type LucideIcon, PackageOpen, Puzzle, Spline, TreePine } from 'lucide-react';
import { said, t } from '../../../../words/words.ts';

/** The holder is built from an outline, and not from numbers alone. */
export const holderId = 'holder';

const icons: Readonly<Record<string, LucideIcon>> = {
  'joined-box': Box,
  'folded-box': PackageOpen,
  'slotted-grid': Grid3x3,
  'layered-base': Layers,
  'bending-panel': Spline,
  'edge-joint': Puzzle,
  'slotted-figure': TreePine,
  [holderId]: Frame,
};

const offered = [...builders.map(({ id, name }) => ({ id, name: said(name) })), { id: holderId, name: t('Holder') }];

/** What can be built, as cards of which one is chosen. */
export function BuilderCards({ value, choose }: { value: string; choose: (id: string) => void }) {
  return (
    <fieldset aria-label={t('What to build')} className="grid grid-cols-3 gap-1.5">
      {offered.map(({ id, name }) => {
        const Icon = icons[id] ?? Box;
        const isChosen = id === value;
        return (
          <button
            key={id}
            type="button"
            aria-pressed={isChosen}
            onClick={() => choose(id)}
            className={`flex flex-col items-center gap-1 rounded-lg border px-1 py-2 text-center text-[12px] leading-tight ${isChosen ? 'border-petrol bg-petrol-soft font-semibold text-petrol' : 'border-line bg-raised hover:border-petrol'}`}
          >
            <Icon size={18} aria-hidden />
            {name}
          </button>
        );
      })}
    </fieldset>
  );
}
