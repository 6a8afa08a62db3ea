import { cardOfLayer } from '@lambent/core/document';
import { chooseLens, chooseVariant, clearSettings } from '@lambent/core/edits';
import { type BurntOperation, burntOperations, isBurnt } from '@lambent/core/operations';
import type { PreparedLayer } from '@lambent/core/plan';
import { type SpeedUnit, speedUnits } from '@lambent/core/units';
import { useCallback, useState } from 'react';
import { useLocation } from 'react-router';
import { chooseSpeedUnit, useSpeedUnits } from '../../../stores/speed-unit.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/choice.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { OperationMark } from '../../../ui/operation-mark.tsx';
import { lowered, t } from '../../../words/words.ts';
import { CardBuilder, type CardStart } from '../../card/card-builder.tsx';
import { CardsPart } from '../../card/cards-part.tsx';
import { ReadDrawer } from '../../card/read-drawer.tsx';
import { useBench, useBenchActions } from '../../context.ts';
import { LayerSettingsFields, sourceWords } from '../../layer/layer-settings.tsx';
import { chooseMaterial } from '../../sheet-choice.ts';
import { jobOf, machineOf } from '../../state/document.ts';
import { MaterialChoice } from '../bed/bed-drawer.tsx';
import { Drawer, Part } from '../drawer.tsx';
import { KeepRecipe } from './keep-recipe.tsx';

/** The material, and the settings each layer burns with; or a test card that is made, or read. */
export function RecipeDrawer() {
  const reading = useBench((state) => state.readCard !== null);
  // A finding may lead straight to a test card.
  const asked: unknown = useLocation().state?.testCard;
  const [building, setBuilding] = useState<CardStart | null>(() => {
    const operation = burntOperations.find((known) => known === asked);
    return operation ? { operation } : null;
  });
  const leave = useCallback(() => setBuilding(null), []);
  if (reading) return <ReadDrawer build={setBuilding} />;
  if (building) return <CardBuilder start={building} leave={leave} />;
  return <Settings build={(operation) => setBuilding({ operation })} />;
}

function Settings({ build }: { build: (operation: BurntOperation) => void }) {
  const actions = useBenchActions();
  const { layers, material } = useBench((state) => state.prepared);
  const hasCards = useBench((state) => jobOf(state).cards.length > 0);
  const changed = useBench((state) =>
    Object.values(jobOf(state).settings).some((settings) => Object.keys(settings).length > 0),
  );
  const used = layers.filter(
    ({ layer, placed }) => isBurnt(layer.operation) && placed.length > 0 && cardOfLayer(layer.id) === null,
  );
  return (
    <Drawer
      title={t('Recipe')}
      aside={used.length === 1 ? t('1 layer') : t('{{used}} layers', { used: used.length })}
      foot={
        changed ? (
          <Button onClick={() => actions.edit(t('settings as in the recipe'), clearSettings)}>
            {t('All as in the recipe')}
          </Button>
        ) : undefined
      }
    >
      <MaterialChoice value={material?.id ?? null} choose={(id) => chooseMaterial(actions, id)} />
      {material?.forbidden && (
        <Notice level="blocks" title={t('Never laser this')}>
          {material.name}: {material.forbidden}
        </Notice>
      )}
      <LensPart />
      <OwnSpeedUnit />
      {used.length === 0 && !hasCards && (
        <p className="text-quiet">
          {t(
            'No layer has anything to burn yet. Bring in a drawing and say what its colours mean, or try the stock with a test card.',
          )}
        </p>
      )}
      {used.map((layer) => (
        <LayerCard key={layer.id} prepared={layer} build={build} />
      ))}
      {!material?.forbidden && <CardsPart build={build} />}
    </Drawer>
  );
}

/** What whoever sits here reckons speeds in. */
function OwnSpeedUnit() {
  const { own, shop } = useSpeedUnits();
  const named = (unit: SpeedUnit) => (unit === '%' ? t('% of top speed') : unit);
  return (
    <Choice<SpeedUnit | 'shop'>
      label={t('Speeds in')}
      value={own ?? 'shop'}
      options={[
        { value: 'shop', text: named(shop), aside: t('as the shop') },
        ...speedUnits.map((unit) => ({ value: unit, text: named(unit) })),
      ]}
      choose={(unit) => chooseSpeedUnit(unit === 'shop' ? null : unit)}
    />
  );
}

/** Which lens is in the machine, where it can have several. */
function LensPart() {
  const actions = useBenchActions();
  const { lenses = [] } = useBench(machineOf);
  const lensId = useBench((state) => jobOf(state).lensId);
  if (lenses.length < 2) return null;
  return (
    <Part title={t('Lens')}>
      <Choice
        label={t('Lens')}
        bare
        value={lensId ?? lenses[0].id}
        options={lenses.map(({ id, name }) => ({ value: id, text: name }))}
        choose={(id) => actions.edit('lens', (job) => chooseLens(job, id))}
      />
    </Part>
  );
}

/** Which of several recipes for its operation a layer goes by. */
function VariantChoice({ prepared: { id, layer, material } }: { prepared: PreparedLayer }) {
  const actions = useBenchActions();
  const machineId = useBench((state) => machineOf(state).id);
  const chosen = useBench((state) => jobOf(state).variants[id] ?? '');
  const names = (material?.recipes ?? [])
    .filter((recipe) => recipe.machineId === machineId && recipe.operation === layer.operation && !recipe.archived)
    .map(({ variant }) => variant ?? '');
  const variants = [...new Set(names)];
  if (variants.length < 2 && variants.every((name) => name === chosen)) return null;
  return (
    <div className="mb-2">
      <Choice
        label={t('Recipe of {{name}}', { name: layer.name })}
        value={chosen}
        options={[...new Set(['', ...variants])].map((name) => ({ value: name, text: name || t('The usual recipe') }))}
        choose={(variant) =>
          actions.edit(t('recipe of {{name}}', { name: layer.name }), (job) => chooseVariant(job, id, variant))
        }
      />
    </div>
  );
}

function LayerCard({ prepared, build }: { prepared: PreparedLayer; build: (operation: BurntOperation) => void }) {
  const { layer, applied, material } = prepared;
  const several = useBench((state) => state.prepared.layers.filter(({ layer: { id } }) => id === layer.id).length > 1);
  return (
    <section aria-label={layer.name} className="rounded-[10px] border border-line bg-raised p-3">
      <div className="mb-2 flex items-center gap-2">
        <OperationMark operation={layer.operation} />
        <h2 className="font-bold">{layer.name}</h2>
        <span className="ml-auto text-[12px] text-quiet">{sourceWords(applied.sources)}</span>
      </div>
      {several && (
        <p className="mb-2 text-[12px] text-quiet">
          {t('On {{name}}', { name: material ? lowered(material.name) : t('no material') })}
        </p>
      )}
      <VariantChoice prepared={prepared} />
      <LayerSettingsFields prepared={prepared} />
      <CardFirst prepared={prepared} build={build} />
      <KeepRecipe prepared={prepared} />
    </section>
  );
}

/** Where nobody has burnt this before, the way to a test card. */
function CardFirst({ prepared, build }: { prepared: PreparedLayer; build: (operation: BurntOperation) => void }) {
  const { applied, material } = prepared;
  const { operation } = prepared.layer;
  const isKnown = applied.settings !== null && applied.basis?.source.kind !== 'worked out';
  if (!isBurnt(operation) || !material || material.forbidden || isKnown) return null;
  return (
    <Button className="mt-2" onClick={() => build(operation)}>
      {t('Burn a test card first')}
    </Button>
  );
}
