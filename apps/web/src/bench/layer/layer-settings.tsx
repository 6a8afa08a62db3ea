import {
  changeSetting,
  formatSpeed,
  type LayerSettings,
  type Parsed,
  type PreparedLayer,
  parseSpeed,
  type SettingSource,
} from '@lambent/core';
import { LengthField } from '../../ui/length-field.tsx';
import { TypedField } from '../../ui/typed-field.tsx';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf, machineOf, unitOf } from '../store.ts';

/** What a layer burns with, each number with where it came from. */
export function LayerSettingsFields({ prepared }: { prepared: PreparedLayer }) {
  const { id, layer, applied, beyond } = prepared;
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const speedUnit = useBench((state) => state.speedUnit);
  const unit = useBench(unitOf);
  const own = useBench((state) => jobOf(state).settings[id]);
  const settings: Partial<LayerSettings> = applied.settings ?? own ?? {};
  const set =
    <K extends keyof LayerSettings>(setting: K) =>
    (value: LayerSettings[K]) => {
      actions.edit(`${settingNames[setting]} of ${layer.name}`, (job) => changeSetting(job, id, setting, value));
      return undefined;
    };
  const marked = (setting: keyof LayerSettings) => applied.sources[setting]?.kind === 'hand';
  return (
    <>
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
        {layer.operation === 'cut' && (
          <LengthField
            label="Kerf"
            unit={unit}
            value={settings.kerfMm ?? 0}
            takes="not-below-0"
            commit={set('kerfMm')}
          />
        )}
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
    </>
  );
}

const settingNames: Record<keyof LayerSettings, string> = {
  powerPercent: 'power',
  speedMmPerS: 'speed',
  passes: 'passes',
  lineSpacingMm: 'line spacing',
  kerfMm: 'kerf',
};

/** Where a layer's settings came from, in a word or two. */
export function sourceWords(sources: Readonly<Partial<Record<keyof LayerSettings, SettingSource>>>): string {
  const all = Object.values(sources);
  const recipe = all.find((source) => source.kind === 'recipe');
  const byHand = all.some((source) => source.kind === 'hand') ? ['changed by hand'] : [];
  const byKey = all.some((source) => source.kind === 'key') ? ['by the key'] : [];
  if (recipe?.kind === 'recipe') return [recipe.evidence, ...byKey, ...byHand].join(', ');
  return byHand.length > 0 ? 'by hand' : byKey.join('');
}

function parseNumber(text: string): Parsed {
  const value = Number(text.trim().replace(',', '.').replace('%', ''));
  return text.trim() !== '' && Number.isFinite(value) ? { ok: true, value } : { ok: false, reason: 'Type a number.' };
}
