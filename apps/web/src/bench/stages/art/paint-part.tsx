import { itemsAmong } from '@lambent/core/document';
import { paintLike, setLineWidth } from '@lambent/core/edits';
import { type LengthUnit, parseLengthFrom } from '@lambent/core/units';
import { Pipette } from 'lucide-react';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { Button } from '../../../ui/button.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { TypedField } from '../../../ui/typed-field.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions, useSelected } from '../../context.ts';
import type { BenchActions } from '../../state/bench-state.ts';
import { unitOf } from '../../state/document.ts';
import { itemUnder } from '../../tools/draw.ts';
import { askForPlace } from '../../tools/place-tool.ts';
import { keyWidths } from './key-widths.ts';

const reachPx = 8;
const thickest = 1000;

/** How thick the lines of the selection are, and taking the paint of something else by pointing at it. */
export function PaintPart() {
  const actions = useBenchActions();
  const { drawing, selection } = useSelected();
  const key = useBench((state) => state.prepared.key);
  const unit = useBench(unitOf);
  const { widths, isPicture } = useMemo(() => {
    const chosen = itemsAmong(drawing, selection);
    const painted = chosen.filter(({ shape }) => shape.kind !== 'picture');
    const widths = new Set(painted.map(({ paint }) => (paint.stroke === null ? null : paint.strokeWidthMm)));
    return { widths, isPicture: painted.length === 0 };
  }, [drawing, selection]);
  if (isPicture) return null;
  const [width] = widths.size === 1 ? widths : [null];
  const change = (mm: number): string | undefined => {
    if (!(mm > 0)) return t('More than 0.');
    if (mm > thickest) return t('At most {{thickest}}.', { thickest: formatLength(thickest, unit) });
    actions.edit(t('change line thickness'), (job) => setLineWidth(job, actions.get().selection, mm));
    return undefined;
  };
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex items-end gap-1.5">
        <TypedField
          label={t('Line thickness')}
          unit={unit}
          text={width === null ? '' : formatLength(width, unit, { bare: true })}
          placeholder={widths.size > 1 ? t('several') : t('no line')}
          parse={(text) => parseLengthFrom(text, unit, width ?? 0)}
          commit={change}
        />
        <Button
          onClick={() => askForPaint(actions)}
          title={t('Then click the item whose paint and layer it is to have')}
        >
          <Pipette size={15} aria-hidden />
          {t('As another item')}
        </Button>
      </div>
      <ul className="flex flex-wrap gap-1" aria-label={t('Usual thicknesses')}>
        {keyWidths(key).map((mm) => (
          <li key={mm}>
            <Width mm={mm} unit={unit} isChosen={mm === width} choose={() => change(mm)} />
          </li>
        ))}
      </ul>
      {key.hairlineMm == null && (
        <p className="text-[12px] text-quiet">
          {t(
            'The colour key {{name}} engraves no line as an area, however thick it is. Say under Colour keys from which thickness on it does.',
            { name: key.name },
          )}
        </p>
      )}
    </div>
  );
}

function Width({
  mm,
  unit,
  isChosen,
  choose,
}: {
  mm: number;
  unit: LengthUnit;
  isChosen: boolean;
  choose: () => void;
}) {
  return (
    <button
      type="button"
      aria-label={t('Lines {{mm}} thick', { mm: formatLength(mm, unit) })}
      aria-pressed={isChosen}
      onClick={choose}
      className="figures h-7 rounded-md border border-line bg-raised px-1.5 text-[12px] hover:border-petrol aria-pressed:border-petrol aria-pressed:bg-petrol-soft"
    >
      {formatLength(mm, unit, { bare: true })}
    </button>
  );
}

/** Has the selection painted as the item that is clicked next, and on its layer. */
function askForPaint(actions: BenchActions): void {
  const { selection } = actions.get();
  askForPlace(actions, t('Click the item whose paint and layer it is to have'), (point) => {
    const model = itemUnder(actions, point, reachPx);
    if (!model) {
      toast.error(t('There is no item there. Click on a line, or inside an outline.'));
      return;
    }
    actions.edit(t('take a paint'), (job) => paintLike(job, selection, model));
  });
}
