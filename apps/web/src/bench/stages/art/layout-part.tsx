import { type DimensionMark, type GuideLine, placeDimension } from '@lambent/core/document';
import { removeDimensions, removeGuide, setGuide } from '@lambent/core/edits';
import { fromMachine, toMachine } from '@lambent/core/machine';
import { X } from 'lucide-react';
import { useShallow } from 'zustand/react/shallow';
import { Button, IconButton } from '../../../ui/button.tsx';
import { formatLength } from '../../../ui/figures.ts';
import { LengthField } from '../../../ui/length-field.tsx';
import { t } from '../../../words/words.ts';
import { useBench, useBenchActions } from '../../context.ts';
import { newId } from '../../new-id.ts';
import { jobOf, machineOf, unitOf } from '../../state/document.ts';
import { Part } from '../drawer.tsx';

/** What helps layout and never burns: guide lines, each at a place that can be typed, and dimension marks. */
export function LayoutPart() {
  const actions = useBenchActions();
  const { mark, guides, dimensions } = useBench(
    useShallow((state) => {
      const { mark, guides, dimensions } = jobOf(state);
      return { mark, guides, dimensions };
    }),
  );
  const add = (axis: 'x' | 'y') => {
    if (mark) actions.edit(t('put a guide line'), (job) => setGuide(job, { id: newId(), axis, at: mark[axis] }));
  };
  const clear = () =>
    actions.edit(t('take the guide lines away'), (job) => guides.reduce((done, { id }) => removeGuide(done, id), job));
  if (!mark && guides.length === 0 && dimensions.length === 0) return null;
  return (
    <>
      <Part title={t('Guide lines: {{guides}}', { guides: guides.length })}>
        {mark && (
          <div className="flex flex-wrap gap-1.5">
            <Button onClick={() => add('x')}>{t('Upright at the mark')}</Button>
            <Button onClick={() => add('y')}>{t('Level at it')}</Button>
          </div>
        )}
        <ul className="flex flex-col gap-1">
          {guides.map((guide) => (
            <GuideRow key={guide.id} guide={guide} />
          ))}
        </ul>
        {guides.length > 0 && (
          <Button look="quiet" className="self-start" onClick={clear}>
            {t('Take all away')}
          </Button>
        )}
        {guides.length === 0 && <p className="text-[12px] text-quiet">{t('Pull one out of a ruler onto the bed.')}</p>}
      </Part>
      {dimensions.length > 0 && (
        <Part title={t('Dimension marks: {{dimensions}}', { dimensions: dimensions.length })}>
          <ul className="flex flex-col">
            {dimensions.map((known) => (
              <DimensionRow key={known.id} mark={known} />
            ))}
          </ul>
        </Part>
      )}
    </>
  );
}

function GuideRow({ guide }: { guide: GuideLine }) {
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const { axis, at, id } = guide;
  const shown = toMachine(machine, at, at)[axis];
  const put = (value: number) =>
    actions.edit(t('move a guide line'), (job) =>
      setGuide(job, { ...guide, at: fromMachine(machine, value, value)[axis] }),
    );
  return (
    <li className="flex items-center gap-1.5">
      <div className="min-w-0 flex-1">
        <LengthField
          label={axis === 'x' ? t('Upright at X') : t('Level at Y')}
          layout="row"
          unit={unit}
          value={shown}
          commit={(value) => void put(value)}
        />
      </div>
      <IconButton
        label={t('Take this guide line away')}
        className="size-7"
        onClick={() => actions.edit(t('take a guide line away'), (job) => removeGuide(job, id))}
      >
        <X size={14} aria-hidden />
      </IconButton>
    </li>
  );
}

const axisWords: Record<DimensionMark['axis'], string> = { straight: 'straight', x: 'across', y: t('up and down') };

function DimensionRow({ mark }: { mark: DimensionMark }) {
  const actions = useBenchActions();
  const drawing = useBench((state) => jobOf(state).drawing);
  const unit = useBench(unitOf);
  const placed = placeDimension(drawing, mark);
  const held = [mark.from, mark.to].flatMap((end) => (end.kind === 'point' ? [] : [end.itemId]));
  return (
    <li
      className="flex items-center justify-between rounded-lg pl-2 hover:bg-table"
      onPointerEnter={() => actions.pointOut(held)}
      onPointerLeave={() => actions.pointOut([])}
    >
      <span>
        <span className="figures text-[12.5px]">{placed ? formatLength(placed.valueMm, unit) : t('lost its end')}</span>{' '}
        <span className="text-quiet">{axisWords[mark.axis]}</span>
      </span>
      <IconButton
        label={t('Take this dimension mark away')}
        className="size-7"
        onClick={() =>
          actions.edit(t('take a dimension mark away'), (job) => removeDimensions(job, new Set([mark.id])))
        }
      >
        <X size={14} aria-hidden />
      </IconButton>
    </li>
  );
}
