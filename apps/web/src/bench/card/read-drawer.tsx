import { type CardMark, cardMarks } from '@lambent/core/document';
import { chooseBestCell, markCells } from '@lambent/core/edits';
import { wattsOf } from '@lambent/core/machine';
import { fillsAreas } from '@lambent/core/operations';
import {
  type CardCell,
  type CardMargin,
  cardSettingOf,
  cellName,
  closerCard,
  energyPerMm,
  type Material,
  marginsAround,
  markNames,
} from '@lambent/core/recipes';
import { lazy, Suspense, useCallback, useState } from 'react';
import { dayAndTimeOf } from '../../stores/dates.ts';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { asLength } from '../../ui/figures.ts';
import { useEscape } from '../../ui/use-escape.ts';
import { lowered, t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { Drawer, Part } from '../stages/drawer.tsx';
import { jobOf, machineOf, unitOf } from '../state/document.ts';
import { BackToRecipe } from './back.tsx';
import type { CardStart } from './card-builder.tsx';
import { cellPicture } from './cell-picture.ts';
import { GreysPart, useGreySteps, withMeasuredGreys } from './greys-part.tsx';
import { MarkSign } from './marks.tsx';
import { marksShown, type ReadCard, useReadBurn, useReadCard } from './reading.ts';

const RecipeForm = lazy(() => import('../stages/recipe/recipe-form.tsx'));

/** Reading a burnt card: marks for its cells, the best of them, and the recipe that comes of it. */
export function ReadDrawer({ build }: { build: (start: CardStart) => void }) {
  const actions = useBenchActions();
  const read = useReadCard();
  const leave = useCallback(() => actions.endReading(), [actions]);
  useEscape(leave);
  return (
    <Drawer title={t('Read the card')} aside={<BackToRecipe leave={leave} />}>
      {read ? <Reading read={read} build={build} /> : <p className="text-quiet">{t('The card is gone.')}</p>}
    </Drawer>
  );
}

function Reading({ read, build }: { read: ReadCard; build: (start: CardStart) => void }) {
  const unit = useBench(unitOf);
  const { laid, card } = read;
  const actions = useBenchActions();
  const brush = useBench((state) => state.cardBrush);
  const materials = useBench((state) => state.shop.materials);
  const current = useBench((state) => state.prepared.material);
  const names = markNames(laid.wish.operation);
  const best = card.cells.find(({ key }) => key === laid.best);
  const material = materials.find(({ id }) => id === laid.materialId);
  const counted = (mark: CardMark) => Object.values(laid.marks).filter((value) => value === mark).length;
  return (
    <>
      <p className="text-quiet">
        {t('{{name}}, {{thicknessMm}}. {{marks}} of {{cells}} cells are graded.', {
          name: material?.name ?? t('A material that is gone'),
          thicknessMm: asLength(laid.thicknessMm, unit),
          marks: Object.keys(laid.marks).length,
          cells: card.cells.length,
        })}
      </p>
      {current && material && current.id !== material.id && (
        <p className="text-warn" role="status">
          {t('The sheet is {{name}} by now; the card was laid on {{name2}}, and its best cell is kept for that.', {
            name: lowered(current.name),
            name2: lowered(material.name),
          })}
        </p>
      )}
      <BurnPart read={read} />
      <Part title={t('Click cells, or draw over them, to grade them as')}>
        <fieldset className="flex flex-col gap-1" aria-label={t('Grade as')}>
          {([...cardMarks, 'best'] as const).map((mark) => (
            <button
              key={mark}
              type="button"
              aria-pressed={brush === mark}
              onClick={() => actions.takeBrush(mark)}
              className="flex h-9 items-center gap-2 rounded-lg border border-line bg-raised px-2.5 text-left aria-pressed:border-petrol aria-pressed:bg-petrol-soft aria-pressed:font-semibold"
            >
              <MarkSign mark={mark} />
              {mark === 'best' ? t('the best of them') : names[mark]}
              {mark !== 'best' && <span className="figures ml-auto text-[12px] text-quiet">{counted(mark)}</span>}
            </button>
          ))}
        </fieldset>
      </Part>
      {best ? (
        <BestPart key={best.key} read={read} best={best} material={material ?? null} build={build} />
      ) : (
        <p className="text-quiet">{t('Grade one cell as the best: it becomes the recipe.')}</p>
      )}
    </>
  );
}

/** Which burn is looked at, and what it shows. */
function BurnPart({ read }: { read: ReadCard }) {
  const { laid } = read;
  const actions = useBenchActions();
  const { burns, run, shown } = useReadBurn(laid);
  if (!run) {
    return (
      <p className="text-warn" role="status">
        {t('It has not been burnt yet: send it under')} <em>{t('Burn')}</em>
        {t(', then grade its cells.')}
      </p>
    );
  }
  const markAll = () => {
    if (!shown) return;
    actions.edit(t('grade the card as its picture shows'), (job) => markCells(job, laid.id, marksShown(read, shown)));
  };
  return (
    <Part title={t('As it was burnt')}>
      <Choice
        label={t('The burn')}
        bare
        value={run.id}
        options={burns.map(({ id, startedAt, hasPicture }) => ({
          value: id,
          text: dayAndTimeOf(startedAt),
          aside: hasPicture ? t('with a picture') : t('no picture'),
        }))}
        choose={actions.readBurn}
      />
      {shown?.simulated && (
        <p className="text-[12px] text-quiet">
          {t('The picture is simulated: a stand-in works it out from a simple model of the stuff.')}
        </p>
      )}
      {shown ? (
        <Button className="self-start" onClick={markAll}>
          {t('Grade all as the picture shows')}
        </Button>
      ) : (
        <p className="text-[12px] text-quiet">
          {t('There is no picture of it: grade the cells by the card in your hand.')}
        </p>
      )}
    </Part>
  );
}

interface BestProps {
  read: ReadCard;
  best: CardCell;
  material: Material | null;
  build: (start: CardStart) => void;
}

function BestPart({ read, best, material, build }: BestProps) {
  const { laid, card, itemOf } = read;
  const { run, shown } = useReadBurn(laid);
  const item = itemOf(best);
  const actions = useBenchActions();
  // The card is of the machine that burnt it, whichever the job is for by now.
  const machine = useBench((state) => state.shop.machines.find(({ id }) => id === run?.machineId) ?? machineOf(state));
  const title = useBench((state) => state.title);
  const jobId = useBench((state) => state.jobId);
  const [keeping, setKeeping] = useState(false);
  const { operation } = laid.wish;
  const energy = energyPerMm({ ...best.settings, operation }, wattsOf(machine));
  const name = cellName(laid.wish, card, best);
  const margins = marginsAround(laid, card, best);
  const isGrey = laid.wish.across.setting === 'greyPercent';
  const greys = useGreySteps(read, best);
  return (
    <>
      {greys.length > 0 && <GreysPart read={read} steps={greys} />}
      <Part title={t('The best cell')}>
        <div className="rounded-[10px] border border-line bg-raised p-3">
          <p className="figures font-bold">{name}</p>
          {energy !== null && (
            <p className="figures text-[12px] text-quiet">
              {Number(energy.toPrecision(3))} {fillsAreas(operation) ? t('J/mm²') : t('J/mm')}
            </p>
          )}
          <ul className="mt-1.5 flex flex-col gap-1">
            {margins.map((margin) => (
              <li key={margin.setting}>
                <MarginLine margin={margin} names={markNames(operation)} />
              </li>
            ))}
          </ul>
        </div>
        {keeping && material ? (
          <Suspense>
            <RecipeForm
              material={material}
              machine={machine}
              operation={operation}
              settings={greys.length > 0 ? withMeasuredGreys(best.settings, greys) : best.settings}
              what={{ what: `test card, ${title}`, jobId }}
              {...(isGrey ? { note: greysInWords(margins) } : {})}
              {...(shown && item ? { picture: () => cellPicture(shown, item, material.tone) } : {})}
              words={t('{{name}}: the best cell of the card is kept in the recipe book.', { name: material.name })}
              kept={() => {
                setKeeping(false);
                // What the card was burnt for is looked at again.
                const { runs, cards } = jobOf(actions.get());
                const work = runs.find(({ id }) => !cards.some(({ runId }) => runId === id));
                if (work) actions.chooseRun(work.id);
              }}
              leave={() => setKeeping(false)}
            />
          </Suspense>
        ) : (
          <Button look="main" className="self-start" disabled={!material} onClick={() => setKeeping(true)}>
            {t('Keep it as a recipe')}
          </Button>
        )}
        <Button
          className="self-start"
          onClick={() => {
            actions.endReading();
            build({ operation, wish: closerCard(laid.wish, card, best) });
          }}
        >
          {t('A card that looks closer')}
        </Button>
      </Part>
    </>
  );
}

/** Of a card of greys: which of them can be told. */
function greysInWords(margins: readonly CardMargin[]): string {
  const grey = margins.find(({ setting }) => setting === 'greyPercent');
  return grey ? t('Greys from {{from}} to {{to}} % are clear.', { from: grey.from, to: grey.to }) : '';
}

/** How far a setting can go from the best cell before it does not do. */
function MarginLine({ margin, names }: { margin: CardMargin; names: Readonly<Record<CardMark, string>> }) {
  const { setting, from, to, below, above } = margin;
  const { name, counted } = cardSettingOf(setting);
  const met = [below, above].flatMap((entry) =>
    entry ? [t('{{names}} at {{value}}', { names: names[entry.mark], value: entry.value })] : [],
  );
  return (
    <>
      {t('{{name}}: good', { name })}{' '}
      <span className="figures">
        {from === to ? t('at {{from}}', { from }) : t('from {{from}} to {{to}}', { from, to })} {counted}
      </span>
      {met.length > 0 ? `; ${met.join(', ')}` : t(', as far as the card goes')}
    </>
  );
}

/** Puts marks on cells in one edit. */
export function useMarking(read: ReadCard) {
  const actions = useBenchActions();
  return (keys: readonly string[]) => {
    const { cardBrush } = actions.get();
    const { id, marks } = read.laid;
    if (cardBrush === 'best') {
      const key = keys.at(-1) ?? null;
      actions.edit(t('choose the best cell'), (job) => chooseBestCell(job, id, key === read.laid.best ? null : key));
      return;
    }
    // One cell that has the mark already loses it.
    const next = keys.length === 1 && marks[keys[0]] === cardBrush ? null : cardBrush;
    const words = keys.length === 1 ? t('grade a cell') : t('grade {{keys}} cells', { keys: keys.length });
    actions.edit(words, (job) => markCells(job, id, new Map(keys.map((key) => [key, next]))));
  };
}
