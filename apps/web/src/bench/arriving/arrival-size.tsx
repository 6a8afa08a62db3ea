import { type FoundSize, shownBounds } from '@lambent/core/formats';
import { boxHeight, boxWidth, isEmpty } from '@lambent/core/geometry';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { formatLength } from '../../ui/figures.ts';
import { LengthField } from '../../ui/length-field.tsx';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { Part } from '../stages/drawer.tsx';
import type { Arriving } from '../state/arriving.ts';
import { unitOf } from '../state/document.ts';
import { measuredBox, setKnown } from './arriving.ts';

/** How large an arriving drawing is, and how large it is to be. */
export function SizePart({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const { reading, factor, measured } = arriving;
  const { size } = reading;
  const bounds = shownBounds(reading);
  if (isEmpty(bounds)) return null;
  const [width, height] = [boxWidth(bounds), boxHeight(bounds)];
  const part = measuredBox(arriving);
  const shown = (mm: number) => formatLength(mm, unit, { bare: true });
  const brief = (mm: number) => formatLength(mm, unit, { bare: true, decimals: unit === 'mm' ? 1 : 2 });
  const chosen = size.others.findIndex((other) => Math.abs(other.factor - factor) < 1e-9);
  const typed = chosen < 0 && Math.abs(factor - 1) > 1e-9;
  return (
    <Part title={t('Size')}>
      <p className="figures text-[15px] font-bold" data-testid="arrival-size">
        {shown(width * factor)} × {shown(height * factor)} {unit}
      </p>
      <p className={size.sure ? 'text-[12px] text-quiet' : 'text-[12px] text-warn'}>
        {typed
          ? t('{{factor}} % of the size read', { factor: Number((factor * 100).toPrecision(4)) })
          : foundWords(size)}
      </p>
      {size.others.length > 0 && (
        <Choice
          label={t('Read as')}
          value={String(chosen)}
          empty={typed ? t('A size of your own') : t('As the file says')}
          options={size.others.map((other, i) => ({
            value: String(i),
            text: other.label,
            aside: `${brief(width * other.factor)} × ${brief(height * other.factor)}`,
          }))}
          choose={(value) => actions.adjustArriving({ factor: size.others[Number(value)].factor })}
        />
      )}
      <p className="text-[12px] text-quiet">
        {measured
          ? t('A known size of the marked part:')
          : t('Or type a known size; click a part in the picture to measure that.')}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label={t('Known width')}
          layout="stack"
          unit={unit}
          value={boxWidth(part) * factor}
          commit={(mm) => setKnown(actions, 'width', mm)}
        />
        <LengthField
          label={t('Known height')}
          layout="stack"
          unit={unit}
          value={boxHeight(part) * factor}
          commit={(mm) => setKnown(actions, 'height', mm)}
        />
      </div>
      {measured && (
        <Button look="quiet" className="-ml-3 self-start" onClick={() => actions.adjustArriving({ measured: null })}>
          {t('Measure the whole')}
        </Button>
      )}
      {Math.abs(factor - 1) > 1e-9 && (
        <Button look="quiet" className="-ml-3 self-start" onClick={() => actions.adjustArriving({ factor: 1 })}>
          {t('Back to the size read')}
        </Button>
      )}
    </Part>
  );
}

/** Where the size was found, as a sentence. */
function foundWords({ sure, from }: FoundSize): string {
  const words = sure ? t('From {{from}}', { from }) : from;
  return `${words[0].toUpperCase()}${words.slice(1)}.`;
}
