import { type BuildAnswer, builders, inRows, putDown, type Stock } from '@lambent/core/builders';
import { drawnPaint } from '@lambent/core/colours';
import type { BuiltThing } from '@lambent/core/document';
import { thicknessBy } from '@lambent/core/fit';
import {
  appendPath,
  boxHeight,
  boxWidth,
  type Matrix,
  multiply,
  type Path,
  PathBuilder,
  transformPath,
  translation,
} from '@lambent/core/geometry';
import { playsOf } from '@lambent/core/recipes';
import { formatLength, type LengthUnit } from '@lambent/core/units';
import { Check, TriangleAlert } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../../../ui/button.tsx';
import { Choice } from '../../../../ui/choice.tsx';
import { LengthField } from '../../../../ui/length-field.tsx';
import type { BuiltAnswer } from '../../../../workers/build-work.ts';
import { work } from '../../../../workers/work.ts';
import { showItems } from '../../../bed/showing.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { freeOnSheet, roomOn } from '../../../lay-on-sheet.ts';
import { newId } from '../../../new-id.ts';
import type { BenchActions } from '../../../state/bench-state.ts';
import { jobOf, machineOf, unitOf } from '../../../state/document.ts';
import { SheetThickness } from '../../bed/sheet-thickness.tsx';
import { SlowStop, Trouble } from '../../fit/placing-fields.tsx';
import { useWorked } from '../../fit/use-worked.ts';
import { ArtPage } from '../art-page.tsx';
import { BuiltFields, type Numbers } from './built-fields.tsx';
import { leaveBuilt } from './built-use.ts';

/** So far apart parts lie, in mm. */
const gapMm = 4;
/** What rows are as wide as where there is no sheet, and stock as thick, in mm. */
const usualRow = 400;
const usualThickness = 3;

/** What came of some numbers and stock. */
interface Worked {
  readonly asked: { readonly builderId: string; readonly numbers: Numbers; readonly stock: Stock };
  readonly answer: BuiltAnswer;
}

type Built = Extract<BuildAnswer, { ok: true }>['built'];

/** Makes parts from numbers, or changes those of something that was built. They are shown on the bed while one types. */
export function BuiltDrawer({ thing }: { thing: BuiltThing | null }) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const sheet = useBench((state) => jobOf(state).sheets[0]);
  const { materials } = useBench((state) => state.shop);
  const material = useBench((state) => state.prepared.material);
  const [builderId, setBuilderId] = useState(thing?.builder ?? builders[0].id);
  const [numbers, setNumbers] = useState<Numbers>(thing?.numbers ?? {});
  const [typedThickness, setTypedThickness] = useState(usualThickness);
  const thicknessMm = (sheet && thicknessBy(materials)(sheet)) ?? typedThickness;
  const stock: Stock = useMemo(() => ({ thicknessMm, plays: playsOf(material) }), [thicknessMm, material]);
  // What came of it is known by what it was asked for: numbers may be others by then.
  const ask = useMemo(
    () => async () => ({
      asked: { builderId, numbers, stock },
      answer: await work('build', [builderId, numbers, stock]),
    }),
    [builderId, numbers, stock],
  );
  const { answer: worked, working, share, trouble, stop } = useWorked<Worked>(ask);
  const answer = worked?.answer ?? null;
  const isOfThese =
    worked?.asked.builderId === builderId && worked.asked.numbers === numbers && worked.asked.stock === stock;
  const [good, setGood] = useState<Extract<BuiltAnswer, { ok: true }> | null>(null);
  useEffect(() => {
    if (answer?.ok) setGood(answer);
  }, [answer]);
  const place = usePlace(good?.built ?? null);
  useShown(thing ? null : (good?.built ?? null), place);
  const builder = builders.find(({ id }) => id === builderId) ?? builders[0];
  const set = (field: string, value: Numbers[string]) => setNumbers((before) => ({ ...before, [field]: value }));
  const make = () => {
    if (!good || !isOfThese) return;
    const made: BuiltThing = { id: thing?.id ?? newId(), builder: builderId, numbers, ...stock };
    if (thing) change(actions, made, builder.name);
    else put(actions, made, builder.name, good.built, place);
    leaveBuilt();
  };
  const count = good?.built.parts.length ?? 0;
  return (
    <ArtPage label="Parts from numbers" title="Parts from numbers" leave={leaveBuilt}>
      <p className="px-3.5 pb-2 text-quiet">{builder.about}</p>
      <div
        data-scrolls
        className="relative grid min-h-0 flex-1 grid-cols-2 content-start items-end gap-x-2 gap-y-2.5 overflow-y-auto px-3.5 pb-4"
      >
        {!thing && (
          <div className="col-span-2">
            <Choice
              label="What to build"
              value={builderId}
              options={builders.map(({ id, name }) => ({ value: id, text: name }))}
              choose={(id) => {
                setBuilderId(id);
                setNumbers({});
              }}
            />
          </div>
        )}
        <BuiltFields
          key={builderId}
          builder={builder}
          numbers={numbers}
          set={set}
          troubles={answer && !answer.ok ? answer.troubles : []}
          unit={unit}
          stock={
            sheet ? (
              <SheetThickness sheet={sheet} alone />
            ) : (
              <LengthField
                label="Measured thickness"
                unit={unit}
                value={typedThickness}
                takes="more-than-0"
                commit={setTypedThickness}
              />
            )
          }
        />
      </div>
      <div className="flex flex-col gap-1.5 border-t border-line px-3.5 py-3">
        {good && <Figures answer={good} unit={unit} isOld={answer !== null && !answer.ok} />}
        {working && <SlowStop share={share} stop={stop} />}
        <Trouble words={trouble} />
        <div className="grid grid-cols-2 gap-2">
          <Button onClick={leaveBuilt}>Leave it</Button>
          <Button look="main" disabled={!answer?.ok || !isOfThese} onClick={make}>
            {thing ? 'Change it' : `Put ${count} parts down`}
          </Button>
        </div>
      </div>
    </ArtPage>
  );
}

/** What was built in figures, and whether it goes together. */
function Figures({
  answer,
  unit,
  isOld,
}: {
  answer: Extract<BuiltAnswer, { ok: true }>;
  unit: LengthUnit;
  isOld: boolean;
}) {
  const { parts, insideMm, outsideMm, holdsMm3, cutMm, playMm, assembly } = answer.figures;
  const size = (mm: readonly number[]) => mm.map((side) => formatLength(side, unit, { bare: true })).join(' × ');
  const rows = [
    ['Parts', String(parts.length)],
    ...(insideMm ? [[`Inside, ${unit}`, size(insideMm)]] : []),
    [`Outside, ${unit}`, size(outsideMm)],
    ...(holdsMm3 === null ? [] : [['Holds', `${(holdsMm3 / 1e6).toFixed(2)} l`]]),
    ['Cut', `${(cutMm / 1000).toFixed(2)} m`],
    ['Play in each joint', formatLength(playMm, unit)],
  ];
  return (
    <div data-testid="built-figures" className={isOld ? 'opacity-60' : ''}>
      {isOld && <p className="text-quiet">As it was last:</p>}
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-[12px]">
        {rows.map(([words, figure]) => (
          <div key={words} className="contents">
            <dt className="text-quiet">{words}</dt>
            <dd className="figures text-right">{figure}</dd>
          </div>
        ))}
      </dl>
      {assembly.goesTogether ? (
        <p className="mt-1 flex items-start gap-1.5 text-[12px] text-settled">
          <Check size={14} className="mt-0.5 shrink-0" aria-hidden /> Goes together: nothing overlaps, nothing gapes.
        </p>
      ) : (
        <p className="mt-1 flex items-start gap-1.5 text-[12px] text-stop">
          <TriangleAlert size={14} className="mt-0.5 shrink-0" aria-hidden /> Does not go together.
        </p>
      )}
    </div>
  );
}

/** Where parts go: free on the sheet where they have room in rows as wide as it is, else from its corner. */
interface PartsPlace {
  readonly x: number;
  readonly y: number;
  readonly rowMm: number;
  readonly isFree: boolean;
}

function usePlace(built: Built | null): PartsPlace {
  const job = useBench(jobOf);
  const machine = useBench(machineOf);
  return useMemo(() => {
    const [sheet] = job.sheets;
    if (!built || !sheet) return { x: machine.margin, y: machine.margin, rowMm: usualRow, isFree: true };
    const room = roomOn(sheet, machine);
    const rowMm = boxWidth(room);
    const { bounds } = inRows(built.parts, rowMm, gapMm);
    const free = freeOnSheet(job, machine, boxWidth(bounds), boxHeight(bounds));
    return { x: free?.x ?? room.minX, y: free?.y ?? room.minY, rowMm, isFree: free !== null };
  }, [built, job, machine]);
}

/** Shows the parts on the bed where they would go. */
function useShown(built: Built | null, place: PartsPlace): void {
  const actions = useBenchActions();
  const outline = useMemo(() => built && outlineOf(built, place), [built, place]);
  useEffect(() => {
    actions.showDraft(outline ? { outline } : null);
    return () => actions.showDraft(null);
  }, [actions, outline]);
}

function outlineOf({ parts }: Built, { x, y, rowMm }: PartsPlace): Path {
  const { places } = inRows(parts, rowMm, gapMm);
  const builder = new PathBuilder();
  const add = (path: Path, matrix: Matrix) => appendPath(builder, transformPath(path, matrix), true);
  parts.forEach(({ cut }, i) => add(cut, multiply(translation(x, y), places[i])));
  return builder.build();
}

function put(
  actions: BenchActions,
  thing: BuiltThing,
  name: string,
  built: Built,
  { isFree, ...place }: PartsPlace,
): void {
  const { key } = actions.get().prepared;
  const looks = { cut: drawnPaint(key, 'cut'), score: drawnPaint(key, 'score') };
  let ids: string[] = [];
  actions.edit(`build a ${name.toLowerCase()}`, (job) => {
    const added = putDown(job, thing, name, built, { ...place, looks, gapMm }, newId);
    ids = added.ids;
    return added.job;
  });
  if (!isFree)
    toast.message('The sheet has no room for all parts: they begin in its corner. Move them, or lay another sheet.');
  showItems(actions, ids);
}

/** Gives what was built other numbers; its parts follow. */
function change(actions: BenchActions, thing: BuiltThing, name: string): void {
  actions.edit(`change a ${name.toLowerCase()}`, (job) => ({
    ...job,
    built: job.built.map((known) => (known.id === thing.id ? thing : known)),
  }));
}
