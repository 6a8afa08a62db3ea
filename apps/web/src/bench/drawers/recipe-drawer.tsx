import {
  changeSetting,
  clearSettings,
  formatSpeed,
  isBurnt,
  type LayerSettings,
  type Parsed,
  type PreparedLayer,
  parseSpeed,
  type SettingSource,
  type SpeedUnit,
  speedUnits,
} from '@lambent/core';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { Notice } from '../../ui/notice.tsx';
import { OperationMark } from '../../ui/operation-mark.tsx';
import { TypedField } from '../../ui/typed-field.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { chooseMaterial } from '../sheet-choice.ts';
import { jobOf, machineOf } from '../store.ts';
import { MaterialChoice } from './bed-drawer.tsx';
import { Drawer, Part } from './drawer.tsx';

/** The material, and the settings each layer burns with. */
export function RecipeDrawer() {
  const actions = useBenchActions();
  const { layers, meaning, material } = useBench((state) => state.prepared);
  const changed = useBench((state) =>
    Object.values(jobOf(state).settings).some((settings) => Object.keys(settings).length > 0),
  );
  const speedUnit = useBench((state) => state.speedUnit);
  const used = layers.filter(
    ({ layer }) => isBurnt(layer.operation) && (meaning.placed.get(layer.id) ?? []).length > 0,
  );
  return (
    <Drawer
      title="Recipe"
      aside={used.length === 1 ? '1 layer' : `${used.length} layers`}
      foot={
        changed ? (
          <Button onClick={() => actions.edit('settings as in the recipe', clearSettings)}>All as in the recipe</Button>
        ) : undefined
      }
    >
      <Part title="Material">
        <MaterialChoice value={material?.id ?? null} choose={(id) => chooseMaterial(actions, id)} />
      </Part>
      {material?.forbidden && (
        <Notice level="blocks" title="Never laser this">
          {material.name}: {material.forbidden}
        </Notice>
      )}
      <Part title="Speeds in">
        <Choice<SpeedUnit>
          label="Speeds in"
          value={speedUnit}
          options={speedUnits.map((unit) => ({ value: unit, text: unit === '%' ? '% of top speed' : unit }))}
          choose={(unit) => actions.set({ speedUnit: unit })}
        />
      </Part>
      {used.length === 0 && (
        <p className="text-quiet">
          No layer has anything to burn yet. Bring in a drawing and say what its colours mean.
        </p>
      )}
      {used.map((layer) => (
        <LayerCard key={layer.layer.id} prepared={layer} />
      ))}
    </Drawer>
  );
}

function LayerCard({ prepared }: { prepared: PreparedLayer }) {
  const { layer, applied, beyond } = prepared;
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const speedUnit = useBench((state) => state.speedUnit);
  const own = useBench((state) => jobOf(state).settings[layer.id]);
  const settings: Partial<LayerSettings> = applied.settings ?? own ?? {};
  const set =
    <K extends keyof LayerSettings>(setting: K) =>
    (value: LayerSettings[K]) => {
      actions.edit(`${settingNames[setting]} of ${layer.name}`, (job) => changeSetting(job, layer.id, setting, value));
      return undefined;
    };
  const marked = (setting: keyof LayerSettings) => applied.sources[setting]?.kind === 'hand';
  return (
    <section aria-label={layer.name} className="rounded-[10px] border border-line bg-raised p-3">
      <div className="mb-2 flex items-center gap-2">
        <OperationMark operation={layer.operation} />
        <h2 className="font-bold">{layer.name}</h2>
        <span className="ml-auto text-[12px] text-quiet">{sourceWords(applied.sources)}</span>
      </div>
      {applied.settings === null && (
        <p className="mb-2 font-semibold text-stop">
          No recipe here. Type power and speed, or choose another material.
        </p>
      )}
      <div className="grid grid-cols-2 gap-2">
        <TypedField
          label="Power"
          unit="%"
          text={settings.powerPercent === undefined ? '' : String(settings.powerPercent)}
          parse={parseNumber}
          commit={set('powerPercent')}
          step={(by) => (settings.powerPercent ?? 0) + by}
          marked={marked('powerPercent')}
        />
        <TypedField
          label="Speed"
          unit={speedUnit}
          text={
            settings.speedMmPerS === undefined
              ? ''
              : formatSpeed(settings.speedMmPerS, speedUnit, machine.topSpeed).split(' ')[0]
          }
          parse={(text) => parseSpeed(text, speedUnit, machine.topSpeed)}
          commit={set('speedMmPerS')}
          step={(by) => (settings.speedMmPerS ?? 0) + by}
          marked={marked('speedMmPerS')}
        />
        <TypedField
          label="Passes"
          text={String(settings.passes ?? 1)}
          parse={parseNumber}
          commit={set('passes')}
          step={(by) => Math.max(1, (settings.passes ?? 1) + Math.sign(by))}
          marked={marked('passes')}
        />
        {layer.operation === 'engrave' && (
          <TypedField
            label={`Lines (${Math.round(25.4 / (settings.lineSpacingMm ?? 0.1))} per inch)`}
            unit="mm"
            text={String(settings.lineSpacingMm ?? 0.1)}
            parse={parseNumber}
            commit={set('lineSpacingMm')}
            step={(by) => Math.round(((settings.lineSpacingMm ?? 0.1) + by * 0.01) * 1000) / 1000}
            marked={marked('lineSpacingMm')}
          />
        )}
      </div>
      {beyond.map((sentence) => (
        <p key={sentence} role="alert" className="mt-2 text-[12px] text-stop">
          {sentence}
        </p>
      ))}
      {applied.recipe && <p className="mt-2 text-[12px] text-quiet">{applied.recipe.note}</p>}
    </section>
  );
}

const settingNames: Record<keyof LayerSettings, string> = {
  powerPercent: 'power',
  speedMmPerS: 'speed',
  passes: 'passes',
  lineSpacingMm: 'line spacing',
};

/** Where a layer's settings came from, in a word or two. */
function sourceWords(sources: Readonly<Partial<Record<keyof LayerSettings, SettingSource>>>): string {
  const all = Object.values(sources);
  const recipe = all.find((source) => source.kind === 'recipe');
  const byHand = all.some((source) => source.kind === 'hand');
  if (recipe?.kind === 'recipe') return byHand ? `${recipe.evidence}, changed by hand` : recipe.evidence;
  return byHand ? 'by hand' : '';
}

function parseNumber(text: string): Parsed {
  const value = Number(text.trim().replace(',', '.').replace('%', ''));
  return text.trim() !== '' && Number.isFinite(value) ? { ok: true, value } : { ok: false, reason: 'Type a number.' };
}
