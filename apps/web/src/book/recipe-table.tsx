import { type Machine, wattsOf } from '@lambent/core/machine';
import { burntOperations, fillsAreas, operationOf } from '@lambent/core/operations';
import { type Evidence, energyPerMm, type Material, type Recipe, settingsInRecipe } from '@lambent/core/recipes';
import {
  type Beyond,
  beyondMachine,
  type LayerSettings,
  settingOf,
  settingsOf,
  usualSettings,
} from '@lambent/core/settings';
import { formatSpeed, parseSpeed } from '@lambent/core/units';
import { Archive, ChevronDown, ChevronRight, Plus } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../api.ts';
import { FinerFields } from '../recipe/finer-fields.tsx';
import type { SettingHold } from '../recipe/setting-hold.ts';
import { useSpeedUnit } from '../stores/speed-unit.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { OperationMark } from '../ui/operation-mark.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import { Words } from './material-facts.tsx';
import { RecipePicture } from './recipe-picture.tsx';
import type { BookHold } from './use-book.ts';

interface Props {
  material: Material;
  machines: readonly Machine[];
  book: BookHold;
}

/** What stands in the columns, and how wide they are. */
const columns = [
  ['Operation', 'w-[96px]'],
  ['Variant', 'w-[76px]'],
  ['Power %', 'w-[60px]'],
  ['Speed', 'w-[76px]'],
  ['Passes', 'w-[52px]'],
  ['Kerf mm', 'w-[68px]'],
  ['Lines mm', 'w-[66px]'],
  ['Energy', 'w-[96px]'],
  ['Known as', ''],
  ['', 'w-[60px]'],
] as const;

/** The recipes of a material, machine by machine: compared line by line, changed where they stand. */
export function RecipeTable({ material, machines, book }: Props) {
  const used = material.recipes.filter(({ archived }) => !archived);
  const speedUnit = useSpeedUnit();
  return (
    <section aria-label="Recipes" className="mt-5">
      <div className="overflow-hidden rounded-[10px] border border-line bg-paper">
        {used.length === 0 ? (
          <p className="px-3 py-4 text-quiet">
            {material.forbidden
              ? 'It must never be lasered, and has no recipes.'
              : 'Nothing is known of it yet. Burn a test card, or type what you copied from elsewhere.'}
          </p>
        ) : (
          <table className="w-full table-fixed border-collapse text-left">
            <thead>
              <tr className="text-[12px] text-quiet">
                {columns.map(([name, width]) => (
                  <th key={name} scope="col" className={`px-1 py-2 font-normal first:pl-3 ${width}`}>
                    {name === 'Speed'
                      ? `Speed ${speedUnit}`
                      : name || <span className="sr-only">What can be done</span>}
                  </th>
                ))}
              </tr>
            </thead>
            {machines.map((machine) => (
              <OfMachine
                key={machine.id}
                machine={machine}
                materialId={material.id}
                recipes={used.filter(({ machineId }) => machineId === machine.id)}
                book={book}
              />
            ))}
          </table>
        )}
      </div>
      {!material.forbidden && <NewRecipe material={material} machines={machines} book={book} />}
    </section>
  );
}

function OfMachine({
  machine,
  materialId,
  recipes,
  book,
}: {
  machine: Machine;
  materialId: string;
  recipes: readonly Recipe[];
  book: BookHold;
}) {
  if (recipes.length === 0) return null;
  const sorted = recipes.toSorted(
    (a, b) => burntOperations.indexOf(a.operation) - burntOperations.indexOf(b.operation),
  );
  return (
    <tbody>
      <tr className="border-t border-line bg-table text-[12px]">
        <th scope="rowgroup" colSpan={columns.length} className="px-3 py-1 font-semibold">
          {machine.name} <span className="font-normal text-quiet">{machine.source}</span>
        </th>
      </tr>
      {sorted.map((recipe) => (
        <RecipeRow key={recipe.id} recipe={recipe} materialId={materialId} machine={machine} book={book} />
      ))}
    </tbody>
  );
}

const evidenceWords: readonly { value: Evidence; text: string }[] = [
  { value: 'proven', text: 'Proven' },
  { value: 'copied', text: 'Copied' },
  { value: 'worked out', text: 'Worked out' },
];

function RecipeRow({
  recipe,
  materialId,
  machine,
  book,
}: {
  recipe: Recipe;
  materialId: string;
  machine: Machine;
  book: BookHold;
}) {
  const [open, setOpen] = useState(false);
  const speedUnit = useSpeedUnit();
  const { operation } = recipe;
  const settings: LayerSettings = { ...usualSettings(), powerPercent: 0, speedMmPerS: 0, ...settingsInRecipe(recipe) };
  const beyond: Beyond[] = beyondMachine(settings, operation, machine);
  const today = new Date().toISOString().slice(0, 10);
  const change = (part: Partial<Recipe>) =>
    void book.change((by, known) => {
      const now = known(materialId)?.recipes.find(({ id }) => id === recipe.id) ?? recipe;
      return api.changeRecipe(by, { ...now, ...part });
    });
  const hold: SettingHold = {
    settings,
    has: (setting) => settingsOf(operation).includes(setting),
    set: (setting) => (value) => {
      const isOther = recipe.evidence === 'proven' && settingOf(setting).isInEveryRecipe;
      const typed = { evidence: 'copied' as const, proof: { by: book.by, on: today, what: 'typed into the book' } };
      const measured = { kerfFrom: { from: 'copied' as const, by: book.by, on: today } };
      change({ [setting]: value, ...(isOther ? typed : {}), ...(setting === 'kerfMm' ? measured : {}) });
      return undefined;
    },
    look: (setting) => ({ marked: false, fault: beyond.find((one) => one.setting === setting)?.sentence }),
  };
  const figure = (setting: 'powerPercent' | 'passes' | 'kerfMm' | 'lineSpacingMm', label: string) =>
    hold.has(setting) ? (
      <TypedField
        bare
        label={label}
        text={setting === 'kerfMm' && (recipe.kerfMm ?? null) === null ? '' : String(settings[setting])}
        parse={(text) => parsePlain(text, '%', 'Type a number.')}
        commit={hold.set(setting)}
      />
    ) : (
      <span className="block pt-1.5 text-center text-quiet">–</span>
    );
  const title = `${operationOf(operation).name}${recipe.variant ? `, ${recipe.variant}` : ''}`;
  const energy = energyPerMm(recipe, wattsOf(machine));
  return (
    <>
      <tr aria-label={`${machine.name}, ${title}`} className="border-t border-line align-top [&>td]:px-1 [&>td]:py-1.5">
        <td className="pl-3!">
          <span className="flex items-center gap-1 pt-1.5 font-semibold">
            <OperationMark operation={operation} />
            {operationOf(operation).name}
          </span>
        </td>
        <td>
          <span className="block truncate pt-1.5" title={recipe.variant}>
            {recipe.variant ?? <span className="text-quiet">usual</span>}
          </span>
        </td>
        <td>{figure('powerPercent', 'Power')}</td>
        <td>
          <TypedField
            bare
            label="Speed"
            text={formatSpeed(settings.speedMmPerS, speedUnit, machine.topSpeed).split(' ')[0]}
            parse={(text) => parseSpeed(text, speedUnit, machine.topSpeed)}
            commit={hold.set('speedMmPerS')}
          />
        </td>
        <td>{figure('passes', 'Passes')}</td>
        <td>{figure('kerfMm', 'Kerf')}</td>
        <td>{figure('lineSpacingMm', 'Line spacing')}</td>
        <td className="figures text-right text-[12px] text-quiet">
          <span className="block whitespace-nowrap pt-2">
            {energy === null ? '' : `${Number(energy.toPrecision(3))} ${fillsAreas(operation) ? 'J/mm²' : 'J/mm'}`}
          </span>
        </td>
        <td className="min-w-0 pl-3!">
          <Choice
            label={`How ${title.toLowerCase()} is known`}
            look="chip"
            value={recipe.evidence}
            options={evidenceWords}
            choose={(evidence) =>
              change({ evidence, proof: { by: book.by, on: today, what: recipe.proof?.what ?? '' } })
            }
          />
          <span
            className="mt-0.5 block text-[12px] leading-tight text-quiet"
            title={recipe.proof ? recipe.proof.what : recipe.note}
          >
            {recipe.proof ? (
              <>
                <span className="block truncate">{recipe.proof.by}</span>
                {new Date(recipe.proof.on).toLocaleDateString('en-GB', { dateStyle: 'medium' })}
              </>
            ) : (
              <span className="line-clamp-2">{recipe.note}</span>
            )}
          </span>
        </td>
        <td>
          <span className="flex">
            <IconButton
              label={`Put ${title.toLowerCase()} away`}
              className="size-7"
              onClick={() => change({ archived: true })}
            >
              <Archive size={14} aria-hidden />
            </IconButton>
            <IconButton
              label={`${open ? 'Less' : 'More'} of ${title.toLowerCase()}`}
              aria-expanded={open}
              className="size-7"
              onClick={() => setOpen(!open)}
            >
              {open ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
            </IconButton>
          </span>
        </td>
      </tr>
      {beyond.length > 0 && (
        <tr>
          <td colSpan={columns.length} className="px-3 pb-2 text-[12px] text-stop">
            {beyond.map(({ sentence }) => (
              <p key={sentence} role="alert">
                {sentence}
              </p>
            ))}
          </td>
        </tr>
      )}
      {open && (
        <tr>
          <td colSpan={columns.length} className="px-3 pb-3">
            <div className="grid grid-cols-2 gap-5">
              <FinerFields hold={hold} machine={machine} />
              <div className="mt-2 flex flex-col gap-2">
                <Words label="Variant" value={recipe.variant ?? ''} commit={(variant) => change({ variant })} />
                <Words
                  label="Known from: which burn, which source, how reckoned"
                  value={recipe.proof?.what ?? ''}
                  commit={(what) =>
                    change({ proof: { by: recipe.proof?.by ?? book.by, on: recipe.proof?.on ?? today, what } })
                  }
                />
                <Words label="Note" value={recipe.note} commit={(note) => change({ note })} />
                {recipe.proof?.jobId && (
                  <Link
                    to={`/jobs/${recipe.proof.jobId}/recipe`}
                    className="self-start font-semibold text-petrol underline"
                  >
                    The job that was burnt for it
                  </Link>
                )}
                <RecipePicture
                  pictureId={recipe.pictureId}
                  title={title.toLowerCase()}
                  keep={(pictureId) => change({ pictureId })}
                />
              </div>
            </div>
          </td>
        </tr>
      )}
    </>
  );
}

function NewRecipe({ material, machines, book }: Props) {
  const [chosen, setMachineId] = useState<string | null>(null);
  const machineId = chosen ?? machines[0]?.id ?? '';
  const [operation, setOperation] = useState<Recipe['operation']>('cut');
  const make = () => {
    const known = material.recipes.filter(
      (one) => !one.archived && one.machineId === machineId && one.operation === operation,
    );
    const [like] = known;
    const on = new Date().toISOString().slice(0, 10);
    const recipe: Recipe = {
      powerPercent: 10,
      speedMmPerS: 100,
      passes: 1,
      lineSpacingMm: 0.1,
      note: '',
      ...(like ? settingsInRecipe(like) : {}),
      machineId,
      operation,
      ...(like ? { variant: `variant ${known.length + 1}` } : {}),
      evidence: 'copied',
      proof: { by: book.by, on, what: 'typed into the book' },
    };
    void book.change((by) => api.addRecipe(by, material.id, recipe));
  };
  return (
    <div className="mt-2 flex items-center gap-2">
      <Choice
        label="Machine of the new recipe"
        look="chip"
        value={machineId}
        options={machines.map(({ id, name }) => ({ value: id, text: name }))}
        choose={setMachineId}
      />
      <Choice
        label="Operation of the new recipe"
        look="chip"
        value={operation}
        options={burntOperations.map((value) => ({ value, text: operationOf(value).name }))}
        choose={setOperation}
      />
      <Button onClick={make}>
        <Plus size={15} aria-hidden />
        New recipe
      </Button>
    </div>
  );
}
