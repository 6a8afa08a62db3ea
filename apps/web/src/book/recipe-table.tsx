import { beamOf, wattsOf } from '@lambent/core/machine';
import { operationOf } from '@lambent/core/operations';
import { type Evidence, energyPerMm } from '@lambent/core/recipes';
import { parseSpeed } from '@lambent/core/units';
import { createColumnHelper } from '@tanstack/react-table';
import { Archive, ChevronDown, ChevronRight } from 'lucide-react';
import { createContext, useContext, useState } from 'react';
import { wholeDayOf } from '../stores/dates.ts';
import { useSpeedUnit } from '../stores/speed-unit.ts';
import { IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { type CellOf, DataTable, type tableParts } from '../ui/data-table.tsx';
import { formatSpeed } from '../ui/figures.ts';
import { OperationMark } from '../ui/operation-mark.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import { lowered, said, t } from '../words/words.ts';
import { energyWords } from './energy-words.ts';
import { RecipeDetails } from './recipe-details.tsx';
import { type RecipeLine, today } from './recipe-line.ts';

type Cell = CellOf<RecipeLine>;

/** Which recipes are open, and a way to open and close one. */
const Opened = createContext<{ ids: ReadonlySet<string>; toggle: (id: string) => void }>({
  ids: new Set(),
  toggle: () => {},
});

const idOf = ({ recipe }: RecipeLine) => String(recipe.id);

const evidenceWords: readonly { value: Evidence; text: string }[] = [
  { value: 'proven', text: t('Proven') },
  { value: 'copied', text: t('Copied') },
  { value: 'worked out', text: t('Worked out') },
];

function OperationCell({ row: { original } }: Cell) {
  const { operation } = original.recipe;
  return (
    <span className="flex items-center gap-1 pt-1.5 font-semibold">
      <OperationMark operation={operation} />
      {said(operationOf(operation).name)}
    </span>
  );
}

function VariantCell({ row: { original } }: Cell) {
  const { variant } = original.recipe;
  return (
    <span className="block truncate pt-1.5" title={variant}>
      {variant ?? <span className="text-quiet">{t('usual')}</span>}
    </span>
  );
}

const figureLabels = {
  powerPercent: t('Power'),
  passes: t('Passes'),
  kerfMm: t('Kerf'),
  lineSpacingMm: t('Line spacing'),
};

/** A plain figure; the column’s id is the setting. */
function FigureCell({ row: { original }, column }: Cell) {
  const setting = column.id as keyof typeof figureLabels;
  const { hold, settings, recipe } = original;
  if (!hold.has(setting)) return <span className="block pt-1.5 text-center text-quiet">–</span>;
  return (
    <TypedField
      bare
      label={figureLabels[setting]}
      text={setting === 'kerfMm' && (recipe.kerfMm ?? null) === null ? '' : String(settings[setting])}
      parse={(text) => parsePlain(text, '%', t('Type a number.'))}
      commit={hold.set(setting)}
    />
  );
}

function SpeedHead() {
  return <>{t('Speed {{useSpeedUnit}}', { useSpeedUnit: useSpeedUnit() })}</>;
}

function SpeedCell({ row: { original } }: Cell) {
  const { settings, machine, hold } = original;
  const speedUnit = useSpeedUnit();
  return (
    <TypedField
      bare
      label={t('Speed')}
      text={formatSpeed(settings.speedMmPerS, speedUnit, machine.topSpeed).split(' ')[0]}
      parse={(text) => parseSpeed(text, speedUnit, machine.topSpeed)}
      commit={hold.set('speedMmPerS')}
    />
  );
}

function EnergyCell({ row: { original } }: Cell) {
  const { recipe, machine } = original;
  return (
    <span className="block whitespace-nowrap pt-2">
      {energyWords(energyPerMm(recipe, wattsOf(machine)), recipe.operation)}
    </span>
  );
}

function EvidenceCell({ row: { original } }: Cell) {
  const { recipe, title, change, by } = original;
  const { proof } = recipe;
  return (
    <>
      <Choice
        label={t('How {{title}} is known', { title: lowered(title) })}
        look="chip"
        value={recipe.evidence}
        options={evidenceWords}
        choose={(evidence) => change({ evidence, proof: { by, on: today(), what: proof?.what ?? '' } })}
      />
      <span className="mt-0.5 block text-[12px] leading-tight text-quiet" title={proof ? proof.what : recipe.note}>
        {proof ? (
          <>
            <span className="block truncate">{proof.by}</span>
            {wholeDayOf(proof.on)}
          </>
        ) : (
          <span className="line-clamp-2">{recipe.note}</span>
        )}
      </span>
    </>
  );
}

function ActionsCell({ row: { original } }: Cell) {
  const { title, change } = original;
  const { ids, toggle } = useContext(Opened);
  const isOpen = ids.has(idOf(original));
  return (
    <span className="flex">
      <IconButton
        label={t('Put {{title}} away', { title: lowered(title) })}
        className="size-7"
        onClick={() => change({ archived: true })}
      >
        <Archive size={14} aria-hidden />
      </IconButton>
      <IconButton
        label={t('{{isOpen}} of {{title}}', { isOpen: isOpen ? t('Less') : t('More'), title: lowered(title) })}
        aria-expanded={isOpen}
        className="size-7"
        onClick={() => toggle(idOf(original))}
      >
        {isOpen ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
      </IconButton>
    </span>
  );
}

const helper = createColumnHelper<typeof tableParts, RecipeLine>();
const head = (width: string) => ({ head: `px-1 py-2 ${width}` });
const columns = [
  helper.display({
    id: 'operation',
    header: t('Operation'),
    cell: OperationCell,
    meta: { head: 'py-2 pl-3 pr-1 w-[104px]', cell: 'pl-3!' },
  }),
  helper.display({ id: 'variant', header: t('Variant'), cell: VariantCell, meta: head('w-[76px]') }),
  helper.display({ id: 'powerPercent', header: t('Power %'), cell: FigureCell, meta: head('w-[60px]') }),
  helper.display({ id: 'speedMmPerS', header: SpeedHead, cell: SpeedCell, meta: head('w-[76px]') }),
  helper.display({ id: 'passes', header: t('Passes'), cell: FigureCell, meta: head('w-[52px]') }),
  helper.display({ id: 'kerfMm', header: t('Kerf mm'), cell: FigureCell, meta: head('w-[68px]') }),
  helper.display({ id: 'lineSpacingMm', header: t('Lines mm'), cell: FigureCell, meta: head('w-[66px]') }),
  helper.display({
    id: 'energy',
    header: t('Energy'),
    cell: EnergyCell,
    meta: { ...head('w-[92px]'), cell: 'figures text-right text-[12px] text-quiet' },
  }),
  helper.display({
    id: 'evidence',
    header: t('Known as'),
    cell: EvidenceCell,
    meta: { ...head(''), cell: 'min-w-0 pl-3!' },
  }),
  helper.display({
    id: 'actions',
    header: () => <span className="sr-only">{t('What can be done')}</span>,
    cell: ActionsCell,
    meta: head('w-[60px]'),
  }),
];

/** The recipes of a material, machine by machine: compared line by line, changed where they stand. */
export function RecipeTable({ lines }: { lines: readonly RecipeLine[] }) {
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const toggle = (id: string) => {
    const next = new Set(ids);
    if (!next.delete(id)) next.add(id);
    setIds(next);
  };
  return (
    <Opened.Provider value={{ ids, toggle }}>
      <DataTable
        className="table-fixed"
        columns={columns}
        lines={lines}
        idOf={idOf}
        groups={{
          groupOf: ({ machine }) => machine.id,
          heading: ({ machine }) => (
            <>
              {machine.name} <span className="font-normal text-quiet">{beamOf(machine)}</span>
            </>
          ),
        }}
        row={({ machine, title }) => ({
          label: `${machine.name}, ${title}`,
          className: 'align-top [&>td]:px-1 [&>td]:py-1.5',
        })}
        below={(line, width) => (
          <>
            {line.beyond.length > 0 && (
              <tr>
                <td colSpan={width} className="px-3 pb-2 text-[12px] text-stop">
                  {line.beyond.map(({ sentence }) => (
                    <p key={sentence} role="alert">
                      {sentence}
                    </p>
                  ))}
                </td>
              </tr>
            )}
            {ids.has(idOf(line)) && (
              <tr>
                <td colSpan={width} className="px-3 pb-3">
                  <RecipeDetails line={line} />
                </td>
              </tr>
            )}
          </>
        )}
      />
    </Opened.Provider>
  );
}
