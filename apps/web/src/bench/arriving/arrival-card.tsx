import { type SolidSide, solidSides } from '@lambent/core/document';
import { type ArrivalPlace, type FoundSize, shownBounds } from '@lambent/core/formats';
import { type Box, boxContains, boxHeight, boxOf, boxWidth, isEmpty } from '@lambent/core/geometry';
import { fromMachine, toMachine } from '@lambent/core/machine';
import { formatLength, type LengthUnit } from '@lambent/core/units';
import { LoaderCircle } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { LengthField } from '../../ui/length-field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { Drawer, Part } from '../stages/drawer.tsx';
import type { Arriving } from '../state/arriving.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { ArrivalPicture } from './arrival-picture.tsx';
import { Report, ReportSummary } from './arrival-report.tsx';
import { chooseReading, measuredBox, placedBounds, readNext, setKnown, take } from './arriving.ts';

/** What a file holds, how large it is and where it goes, before any of it is in the job. */
export function ArrivalCard({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const reading = useBench((state) => state.incoming.reading);
  const waiting = useBench((state) => state.incoming.waiting.length);
  const { file, again, taking } = arriving;
  const count = arriving.reading.drawing.items.filter((item) => !item.hidden).length;
  const report = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest('input, [role=listbox]');
      if (event.key === 'Escape' && !typing) void readNext(actions);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions]);
  return (
    <Drawer
      title={again ? 'Read again' : 'Arriving'}
      aside={waiting > 0 ? `${waiting} more ${waiting === 1 ? 'waits' : 'wait'}` : undefined}
      foot={
        <div className="grid grid-cols-2 gap-2">
          <Button onClick={() => void readNext(actions)} disabled={taking}>
            {again ? 'Leave as it is' : 'Leave it'}
          </Button>
          <Button
            look="main"
            autoFocus
            disabled={taking || reading !== null || arriving.reading.drawing.items.length === 0}
            onClick={() => void take(actions)}
          >
            {taking ? 'Taking…' : again ? 'Take it so' : 'Take it'}
          </Button>
        </div>
      }
    >
      <div>
        <p className="truncate font-semibold" title={file.name}>
          {file.name}
        </p>
        <p className="figures text-[12px] text-quiet" data-testid="arrival-count">
          {count} {count === 1 ? 'item' : 'items'} · {formatNames[arriving.reading.format]}
        </p>
        <ReportSummary notes={arriving.reading.notes} show={() => report.current?.scrollIntoView({ block: 'start' })} />
      </div>
      <div className="relative">
        <ArrivalPicture arriving={arriving} />
        {reading && (
          <div
            className="absolute inset-0 flex items-center justify-center gap-2 rounded-[10px] bg-paper/80"
            role="status"
          >
            <LoaderCircle size={16} className="animate-spin text-petrol" aria-hidden />
            Reading again…
          </div>
        )}
      </div>
      <SizePart arriving={arriving} />
      <PlacePart arriving={arriving} />
      <ReadingPart arriving={arriving} />
      <div ref={report}>
        <Report reading={arriving.reading} />
      </div>
    </Drawer>
  );
}

const formatNames = { svg: 'SVG', dxf: 'DXF', pdf: 'PDF', picture: 'picture', stl: 'STL' };

function SizePart({ arriving }: { arriving: Arriving }) {
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
    <Part title="Size">
      <p className="figures text-[15px] font-bold" data-testid="arrival-size">
        {shown(width * factor)} × {shown(height * factor)} {unit}
      </p>
      <p className={size.sure ? 'text-[12px] text-quiet' : 'text-[12px] text-warn'}>
        {typed ? `${Number((factor * 100).toPrecision(4))} % of the size read` : foundWords(size)}
      </p>
      {size.others.length > 0 && (
        <Choice
          label="Read as"
          value={String(chosen)}
          empty={typed ? 'A size of your own' : 'As the file says'}
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
          ? 'A known size of the marked part:'
          : 'Or type a known size; click a part in the picture to measure that.'}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label="Known width"
          layout="stack"
          unit={unit}
          value={boxWidth(part) * factor}
          commit={(mm) => setKnown(actions, 'width', mm)}
        />
        <LengthField
          label="Known height"
          layout="stack"
          unit={unit}
          value={boxHeight(part) * factor}
          commit={(mm) => setKnown(actions, 'height', mm)}
        />
      </div>
      {measured && (
        <Button look="quiet" className="-ml-3 self-start" onClick={() => actions.adjustArriving({ measured: null })}>
          Measure the whole
        </Button>
      )}
      {Math.abs(factor - 1) > 1e-9 && (
        <Button look="quiet" className="-ml-3 self-start" onClick={() => actions.adjustArriving({ factor: 1 })}>
          Back to the size read
        </Button>
      )}
    </Part>
  );
}

/** Where the size was found, as a sentence. */
function foundWords({ sure, from }: FoundSize): string {
  const words = sure ? `From ${from}` : from;
  return `${words[0].toUpperCase()}${words.slice(1)}.`;
}

function PlacePart({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const machine = useBench(machineOf);
  const hasSheet = useBench((state) => jobOf(state).sheets.length > 0);
  const over = useBench((state) => overBed(machineOf(state), placedBounds(state, arriving), unitOf(state)));
  const corner = toMachine(machine, arriving.corner.x, arriving.corner.y);
  const setCorner = (x: number, y: number) => {
    actions.adjustArriving({ corner: fromMachine(machine, x, y) });
    return undefined;
  };
  return (
    <Part title="Place">
      <Choice<ArrivalPlace['kind']>
        label="Place"
        value={arriving.place}
        options={[
          { value: 'as-in-file', text: 'As in the file' },
          { value: 'centred', text: hasSheet ? 'Centred on the sheet' : 'Centred on the bed' },
          { value: 'corner', text: 'Top left at a marked point' },
        ]}
        choose={(place) => actions.adjustArriving({ place })}
      />
      {arriving.place === 'corner' && (
        <>
          <p className="text-[12px] text-quiet">Click on the bed to mark the point, or type it.</p>
          <div className="grid grid-cols-2 gap-2">
            <LengthField
              label="Corner X"
              layout="stack"
              unit={unit}
              value={corner.x}
              commit={(x) => setCorner(x, corner.y)}
            />
            <LengthField
              label="Corner Y"
              layout="stack"
              unit={unit}
              value={corner.y}
              commit={(y) => setCorner(corner.x, y)}
            />
          </div>
        </>
      )}
      {over && (
        <Notice level="warns">
          <p data-testid="arrival-over">{over}</p>
        </Notice>
      )}
    </Part>
  );
}

/** By how much what arrives is larger than the bed, or that it hangs over its edge; null when it lies on it. */
function overBed(
  { name, bedWidth, bedHeight }: { name: string; bedWidth: number; bedHeight: number },
  box: Box,
  unit: LengthUnit,
): string | null {
  if (isEmpty(box)) return null;
  const bed = boxOf(0, 0, bedWidth, bedHeight);
  const wider = boxWidth(box) - bedWidth;
  const higher = boxHeight(box) - bedHeight;
  const by = [
    ...(wider > 0.001 ? [`${formatLength(wider, unit)} wider`] : []),
    ...(higher > 0.001 ? [`${formatLength(higher, unit)} higher`] : []),
  ];
  if (by.length > 0) return `It is ${by.join(' and ')} than ${name}’s bed.`;
  return boxContains(bed, box, 0.001) ? null : `Some of it would lie off ${name}’s bed there.`;
}

const sideNames: Record<SolidSide, string> = {
  '+z': 'Top up',
  '-z': 'Bottom up',
  '+y': 'Back up',
  '-y': 'Front up',
  '+x': 'Right side up',
  '-x': 'Left side up',
};

/** What can be chosen of how the file is read; each choice reads it anew. */
function ReadingPart({ arriving }: { arriving: Arriving }) {
  const actions = useBenchActions();
  const { reading, choices } = arriving;
  const has = (...codes: string[]) => reading.notes.some(({ code }) => codes.includes(code));
  const dashed = has('dashes', 'dashes-as-solid');
  const clipped = has('clipped', 'clipped-away', 'clip-not-applied');
  if (reading.pageCount < 2 && !dashed && !clipped && reading.format !== 'stl') return null;
  return (
    <Part title="Reading">
      {reading.pageCount > 1 && (
        <Choice
          label="Page"
          value={String(choices.page ?? 1)}
          options={Array.from({ length: reading.pageCount }, (_, i) => ({
            value: String(i + 1),
            text: `Page ${i + 1} of ${reading.pageCount}`,
          }))}
          choose={(page) => void chooseReading(actions, { page: Number(page) })}
        />
      )}
      {dashed && (
        <Choice
          label="Dashed lines"
          value={choices.dashes ?? 'solid'}
          options={[
            { value: 'solid', text: 'Dashed lines as solid lines' },
            { value: 'dashed', text: 'Dashed lines as their dashes' },
          ]}
          choose={(dashes) => void chooseReading(actions, { dashes })}
        />
      )}
      {clipped && (
        <Choice
          label="Clips"
          value={choices.clips ?? 'applied'}
          options={[
            { value: 'applied', text: 'Parts cut to their clips' },
            { value: 'whole', text: 'Clipped parts taken whole' },
          ]}
          choose={(clips) => void chooseReading(actions, { clips })}
        />
      )}
      {reading.format === 'stl' && (
        <>
          <Choice
            label="How it lies"
            value={choices.up ?? null}
            empty="Thinnest side up"
            options={solidSides.map((side) => ({ value: side, text: sideNames[side] }))}
            choose={(up) => void chooseReading(actions, { up })}
          />
          <Choice
            label="Where it is cut"
            value={String(choices.cutAt ?? 0.5)}
            options={[
              { value: 'outline', text: 'All that it covers' },
              ...[0.05, 0.25, 0.5, 0.75, 0.95].map((share) => ({
                value: String(share),
                text: `Cut at ${Math.round(share * 100)} % of its height`,
              })),
            ]}
            choose={(cutAt) => void chooseReading(actions, { cutAt: cutAt === 'outline' ? cutAt : Number(cutAt) })}
          />
        </>
      )}
    </Part>
  );
}
