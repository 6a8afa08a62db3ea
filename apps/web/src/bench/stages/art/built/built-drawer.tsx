import { builders, type SourceOutline, type Stock } from '@lambent/core/builders';
import type { BuiltThing } from '@lambent/core/document';
import { thicknessBy } from '@lambent/core/fit';
import { playsOf } from '@lambent/core/recipes';
import { useEffect, useMemo, useState } from 'react';
import { Button } from '../../../../ui/button.tsx';
import { LengthField } from '../../../../ui/length-field.tsx';
import { said, t } from '../../../../words/words.ts';
import type { BuiltAnswer } from '../../../../workers/build-work.ts';
import { work } from '../../../../workers/work.ts';
import { useBench, useBenchActions } from '../../../context.ts';
import { newId } from '../../../new-id.ts';
import { jobOf, unitOf } from '../../../state/document.ts';
import { SheetThickness } from '../../bed/sheet-thickness.tsx';
import { SlowStop, Trouble } from '../../fit/placing-fields.tsx';
import { useWorked } from '../../fit/use-worked.ts';
import { ArtPage } from '../art-page.tsx';
import { BuilderCards, holderId } from './builder-cards.tsx';
import { BuiltFields, type Numbers } from './built-fields.tsx';
import { leaveBuilt } from './built-use.ts';
import { useFlatParts, useLitPart, useMarks } from './flat-parts.ts';
import { HolderPart } from './holder-part.tsx';
import { KeptNumbers } from './kept-numbers.tsx';
import { OwnOutlinesPart, useEdgePicking, useMarked, useOwnOutlines } from './own-outlines.tsx';
import { changeNumbers, joinParts, putParts, usePlace } from './put-parts.ts';
import { TogetherCard } from './together/together-card.tsx';

/** How thick stock is where there is no sheet, in mm. */
const usualThickness = 3;

/** Makes parts from numbers, or changes those of something that was built. */
export function BuiltDrawer({ thing }: { thing: BuiltThing | null }) {
  const [builderId, setBuilderId] = useState(thing?.builder ?? builders[0].id);
  const builder = builders.find(({ id }) => id === builderId);
  // What was typed for each builder stays while another is looked at.
  const [typed, setTyped] = useState<Readonly<Record<string, Numbers>>>({});
  const numbers = typed[builderId] ?? thing?.numbers ?? noNumbers;
  // Outlines that were taken stay, too.
  const [takenIds, setTakenIds] = useState<readonly string[] | null>(null);
  const cards = thing ? null : <BuilderCards value={builderId} choose={setBuilderId} />;
  return (
    <ArtPage label={t('Parts from numbers')} title={t('Parts from numbers')} leave={leaveBuilt}>
      {builderId === holderId && (
        <div data-scrolls className="flex min-h-0 flex-1 flex-col gap-2.5 overflow-y-auto px-3.5 pb-4 pt-1">
          {cards}
          <HolderPart />
        </div>
      )}
      {builder && (
        <BuilderPart
          key={builderId}
          builder={builder}
          thing={thing}
          cards={cards}
          numbers={numbers}
          takenIds={takenIds}
          setTakenIds={setTakenIds}
          change={(change) => setTyped((before) => ({ ...before, [builderId]: change(before[builderId] ?? numbers) }))}
        />
      )}
    </ArtPage>
  );
}

const noNumbers: Numbers = {};
const noOutlines: readonly SourceOutline[] = [];

/** What came of some numbers and stock. */
interface Worked {
  readonly asked: { readonly numbers: Numbers; readonly stock: Stock; readonly outlines: readonly SourceOutline[] };
  readonly answer: BuiltAnswer;
}

type Good = Extract<BuiltAnswer, { ok: true }>;

interface PartProps {
  builder: (typeof builders)[number];
  thing: BuiltThing | null;
  cards: React.ReactNode;
  numbers: Numbers;
  change: (change: (before: Numbers) => Numbers) => void;
  takenIds: readonly string[] | null;
  setTakenIds: (ids: readonly string[] | null) => void;
}

/** The numbers of a builder. What they come to is shown on the bed, and put together, while one types. */
function BuilderPart({ builder, thing, cards, numbers, change, takenIds, setTakenIds }: PartProps) {
  const actions = useBenchActions();
  const unit = useBench(unitOf);
  const sheet = useBench((state) => jobOf(state).sheets[0]);
  const { materials } = useBench((state) => state.shop);
  const material = useBench((state) => state.prepared.material);
  const [typedThickness, setTypedThickness] = useState(usualThickness);
  const thicknessMm = (sheet && thicknessBy(materials)(sheet)) ?? typedThickness;
  const stock: Stock = useMemo(() => ({ thicknessMm, plays: playsOf(material) }), [thicknessMm, material]);
  // What came of it is known by what it was asked for: numbers may be others by then.
  const own = useOwnOutlines(builder, thing, takenIds, setTakenIds);
  const { sources } = own;
  const outlines = sources?.outlines ?? noOutlines;
  const isMissing = builder.takes !== undefined && !sources;
  const ask = useMemo(
    () =>
      isMissing
        ? null
        : async () => ({
            asked: { numbers, stock, outlines },
            answer: await work('build', [builder.id, numbers, stock, outlines]),
          }),
    [builder, numbers, stock, outlines, isMissing],
  );
  const { answer: worked, working, share, trouble, stop } = useWorked<Worked>(ask);
  const answer = worked?.answer ?? null;
  const { asked } = worked ?? {};
  const isOfThese = asked?.numbers === numbers && asked.stock === stock && asked.outlines === outlines;
  const [good, setGood] = useState<Good | null>(null);
  useEffect(() => {
    if (answer?.ok) setGood(answer);
    else if (isMissing) setGood(null);
  }, [answer, isMissing]);
  const built = good?.built ?? null;
  const place = usePlace(built);
  const parts = useFlatParts(thing, built, place, sources);
  const marks = useMarks(built, parts);
  const { lit, light } = useLitPart(parts, useMarked(builder, numbers, sources));
  const set = (field: string, value: Numbers[string]) => change((before) => ({ ...before, [field]: value }));
  useEdgePicking(builder, sources, set);
  const make = () => {
    if (!good || !isOfThese) return;
    const kept = builder.takes ? { outlines } : {};
    const made: BuiltThing = { id: thing?.id ?? newId(), builder: builder.id, numbers, ...stock, ...kept };
    if (thing) changeNumbers(actions, made, said(builder.name));
    else if (sources) joinParts(actions, made, said(builder.name), good.built, sources);
    else putParts(actions, made, said(builder.name), good.built, place);
    leaveBuilt();
  };
  const count = built?.parts.length ?? 0;
  return (
    <>
      <div
        data-scrolls
        className="relative grid min-h-0 flex-1 grid-cols-2 content-start items-end gap-x-2 gap-y-2.5 overflow-y-auto px-3.5 pb-4 pt-1"
      >
        {cards && <div className="col-span-2">{cards}</div>}
        <p className="col-span-2 text-quiet">{said(builder.about)}</p>
        {builder.takes && (
          <div className="col-span-2">
            <OwnOutlinesPart builder={builder} own={own} isThere={thing !== null} unit={unit} />
          </div>
        )}
        <BuiltFields
          builder={builder}
          numbers={numbers}
          set={set}
          sources={sources}
          troubles={answer && !answer.ok ? answer.troubles : []}
          unit={unit}
          stock={
            sheet ? (
              <SheetThickness sheet={sheet} alone />
            ) : (
              <LengthField
                label={t('Measured thickness')}
                unit={unit}
                value={typedThickness}
                takes="more-than-0"
                commit={setTypedThickness}
              />
            )
          }
        />
        <KeptNumbers
          builder={builder}
          numbers={numbers}
          take={(kept) => change(() => kept)}
          isGood={answer?.ok === true && isOfThese}
        />
      </div>
      <div className="flex flex-col gap-1.5 border-t border-line px-3.5 py-3">
        {working && <SlowStop share={share} stop={stop} />}
        <Trouble words={trouble} />
        <div className="grid grid-cols-2 gap-2">
          <Button onClick={leaveBuilt}>{t('Leave it')}</Button>
          <Button look="main" disabled={!answer?.ok || !isOfThese} onClick={make}>
            {thing
              ? t('Change it')
              : builder.takes
                ? t('Make it')
                : count === 1
                  ? t('Put 1 part down')
                  : t('Put {{count}} parts down', { count })}
          </Button>
        </div>
      </div>
      {good && (
        <TogetherCard
          answer={good}
          unit={unit}
          isOld={answer !== null && !answer.ok}
          marks={marks}
          lit={lit}
          light={light}
          sheetMm2={sheet ? sheet.width * sheet.height : null}
        />
      )}
    </>
  );
}
