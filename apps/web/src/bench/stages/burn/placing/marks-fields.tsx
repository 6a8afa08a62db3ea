import type { Landing } from '@lambent/core/document';
import { boxCentre, type Point } from '@lambent/core/geometry';
import { fromMachine, toMachine } from '@lambent/core/machine';
import { useLive } from '../../../../stores/live.ts';
import { Button } from '../../../../ui/button.tsx';
import { formatLength } from '../../../../ui/figures.ts';
import { LengthField } from '../../../../ui/length-field.tsx';
import { Tick } from '../../../../ui/tick.tsx';
import { t } from '../../../../words/words.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { jobOf, machineOf, unitOf } from '../../../state/document.ts';
import { selectionBox } from '../../../state/hand.ts';

type ByMarks = Extract<Landing, { kind: 'marks' }>;
type Mark = ByMarks['marks'][number];

/** Two marks of the drawing, each with where it was touched on the bed: the run is moved and turned onto them. */
export function MarksFields({ landing, land }: { landing: ByMarks; land: (next: Landing) => void }) {
  const { marks, isScaled } = landing;
  const landed = useBench((state) => state.prepared.landed);
  const unit = useBench(unitOf);
  const put = (index: number, mark: Mark) =>
    land({ ...landing, marks: [0, 1].flatMap((i) => (i === index ? [mark] : (marks[i] ?? []))) });
  return (
    <div className="flex flex-col gap-2">
      {[0, 1].map((index) => (
        <MarkFields
          key={index}
          index={index}
          mark={marks[index] ?? null}
          isReady={index <= marks.length}
          put={(mark) => put(index, mark)}
        />
      ))}
      <Tick checked={isScaled} set={(on) => land({ ...landing, isScaled: on })}>
        {t('Make it larger or smaller to fit')}
      </Tick>
      <p className="text-[12px]" role="status" data-testid="marks-fit">
        {landed.needs === 'marks' ? (
          <span className="text-quiet">
            {t('Choose two points of the drawing, move the head to each on the bed, and touch it.')}
          </span>
        ) : (
          <FitOf
            errorMm={landed.errorMm}
            matrix={landed.matrix}
            said={(mm) => formatLength(mm, unit, { fixed: true })}
          />
        )}
      </p>
    </div>
  );
}

/** How the marks fit, and what that does to the run. */
function FitOf({
  errorMm,
  matrix: [a, b],
  said,
}: {
  errorMm: number;
  matrix: readonly number[];
  said: (mm: number) => string;
}) {
  const turn = (Math.atan2(b, a) * 180) / Math.PI;
  const scale = Math.hypot(a, b);
  return (
    <>
      {t('Turned by {{turn}}°', { turn: turn.toFixed(2) })}
      {Math.abs(scale - 1) > 1e-6 && t(', {{scale}} % as large', { scale: (100 * scale).toFixed(2) })}.{' '}
      <span className={errorMm > 0.2 ? 'font-semibold text-warn' : ''}>
        {t('Each stays {{errorMm}} from where it was touched.', { errorMm: said(errorMm) })}
      </span>
    </>
  );
}

interface MarkProps {
  index: number;
  /** Null until it is chosen in the drawing. */
  mark: Mark | null;
  /** The one before it is chosen. */
  isReady: boolean;
  put: (mark: Mark) => void;
}

function MarkFields({ index, mark, isReady, put }: MarkProps) {
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const hasSelection = useBench((state) => state.selection.size > 0);
  const theMark = useBench((state) => jobOf(state).mark);
  const live = useLive((state) => state.machines[machine.id]);
  const name = t('Point {{i}}', { i: index + 1 });
  const draw = (point: Point) => put({ ...point, onBed: mark?.onBed ?? null });
  const touch = () => {
    if (!live || !mark) return;
    // With the red pointer on, what is touched is where that shines.
    const shift = live.pointer && machine.pointer ? machine.pointer : { x: 0, y: 0 };
    put({ ...mark, onBed: fromMachine(machine, live.x + shift.x, live.y + shift.y) });
  };
  return (
    <fieldset className="flex flex-col gap-1.5 rounded-lg border border-line p-2" disabled={!isReady}>
      <legend className="px-1 text-[12px] font-semibold">{name}</legend>
      <div className="flex flex-wrap items-center gap-1.5">
        <Button disabled={!hasSelection} onClick={() => draw(boxCentre(selectionBox(actions.get())))}>
          {t('Middle of the selection')}
        </Button>
        {theMark && (
          <Button onClick={() => draw(theMark)} title={t('The point that M marked')}>
            {t('The mark')}
          </Button>
        )}
      </div>
      {mark && (
        <>
          <Place label={t('{{name}} drawn at', { name })} shown={t('Drawn')} place={mark} put={draw} />
          {mark.onBed && (
            <Place
              label={t('{{name}} touched at', { name })}
              shown={t('Touched')}
              place={mark.onBed}
              put={(onBed) => put({ ...mark, onBed })}
            />
          )}
          <Button disabled={!live || live.state === 'away' || live.state === 'alarm'} onClick={touch}>
            {live?.pointer && machine.pointer ? t('Touched by the pointer') : t('Touched by the head')}
          </Button>
        </>
      )}
    </fieldset>
  );
}

/** A place of the bed, in the machine's own frame. */
function Place({
  label,
  shown,
  place,
  put,
}: {
  label: string;
  shown: string;
  place: Point;
  put: (place: Point) => void;
}) {
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const { x, y } = toMachine(machine, place.x, place.y);
  return (
    <div className="grid grid-cols-[52px_1fr_1fr] items-center gap-1.5">
      <span className="text-[12px] text-quiet">{shown}</span>
      <LengthField
        label={`${label}, X`}
        bare
        layout="row"
        unit={unit}
        value={x}
        commit={(mm) => put(fromMachine(machine, mm, y))}
      />
      <LengthField
        label={`${label}, Y`}
        bare
        layout="row"
        unit={unit}
        value={y}
        commit={(mm) => put(fromMachine(machine, x, mm))}
      />
    </div>
  );
}
