import { setCellDarkness } from '@lambent/core/edits';
import { burntGreysOf, type CardCell, type GreyStep, greySteps, hasGreySteps, lookOf } from '@lambent/core/recipes';
import type { LayerSettings } from '@lambent/core/settings';
import { BurntGreysChart } from '../../recipe/burnt-greys-chart.tsx';
import { parsePlain } from '../../ui/plain-number.ts';
import { TypedField } from '../../ui/typed-field.tsx';
import { t } from '../../words/words.ts';
import { useBenchActions } from '../context.ts';
import { Part } from '../stages/drawer.tsx';
import { type ReadCard, useReadBurn } from './reading.ts';

/** The greys in the row of a cell, as a picture of the card shows them or as somebody said; none where it has no greys. */
export function useGreySteps({ laid, card, itemOf }: ReadCard, best: CardCell | undefined): GreyStep[] {
  const { shown } = useReadBurn(laid);
  if (!best || !hasGreySteps(laid)) return [];
  return greySteps(laid, card, best.row, (cell) => {
    const item = itemOf(cell);
    return shown && item ? lookOf(shown.picture, item, laid.wish.operation).dark : null;
  });
}

/** The settings of a recipe that the card gives, with the tone curve that its greys show. */
export function withMeasuredGreys(settings: LayerSettings, steps: readonly GreyStep[]): LayerSettings {
  return { ...settings, burntGreys: burntGreysOf(steps) ?? [] };
}

/** How dark the greys of a card came out: by its picture, or as it is typed. */
export function GreysPart({ read, steps }: { read: ReadCard; steps: readonly GreyStep[] }) {
  const actions = useBenchActions();
  const { shown } = useReadBurn(read.laid);
  const greys = burntGreysOf(steps);
  const say = (cell: CardCell, percent: number | undefined) =>
    actions.edit(t('say how dark a grey came out'), (job) => setCellDarkness(job, read.laid.id, cell.key, percent));
  const typed = Object.keys(read.laid.darks ?? {});
  return (
    <Part title={t('How dark its greys came out')}>
      <p className="text-[12px] text-quiet">
        {shown
          ? t('As the picture shows, from 0 % for bare to 100 % for black. Type what you measured on the card instead.')
          : t('Measure each grey on the card, from 0 % for bare to 100 % for black.')}
      </p>
      {greys && <BurntGreysChart greys={greys} />}
      <div className="grid grid-cols-2 gap-x-3 gap-y-1.5">
        {steps.map(({ cell, askedPercent, darkPercent }) => (
          <TypedField
            key={cell.key}
            layout="row"
            label={`${askedPercent} %`}
            unit="%"
            text={darkPercent === null ? '' : String(darkPercent)}
            parse={(text) => parsePlain(text, '%', t('Type a number.'))}
            commit={(percent) => {
              if (percent < 0 || percent > 100) return t('A number from 0 to 100.');
              say(cell, percent);
              return undefined;
            }}
            marked={typed.includes(cell.key)}
          />
        ))}
      </div>
      <p className="text-[12px] text-quiet">
        {greys
          ? t('Photos that burn by this recipe are corrected by it: steps that are even in the picture come out even.')
          : t('Three greys that differ make a tone curve, and photos are corrected by it.')}
      </p>
    </Part>
  );
}
