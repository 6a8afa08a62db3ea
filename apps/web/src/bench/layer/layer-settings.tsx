import { changeSetting } from '@lambent/core/edits';
import { wattsOf } from '@lambent/core/machine';
import type { PreparedLayer } from '@lambent/core/plan';
import type { SettingSource } from '@lambent/core/recipes';
import { type LayerSettings, settingOf, settingsOf } from '@lambent/core/settings';
import { useState } from 'react';
import { FinerFields, finerSettings } from '../../recipe/finer-fields.tsx';
import type { SettingHold } from '../../recipe/setting-hold.ts';
import { useSpeedUnit } from '../../stores/speed-unit.ts';
import { formatSpeed } from '../../ui/figures.ts';
import { LengthField } from '../../ui/length-field.tsx';
import { parsePlain } from '../../ui/plain-number.ts';
import { SpeedField } from '../../ui/speed-field.tsx';
import { TypedField } from '../../ui/typed-field.tsx';
import { said, t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { jobOf, machineOf, unitOf } from '../state/document.ts';

/** What a layer burns with, each number with where it came from. */
export function LayerSettingsFields({ prepared }: { prepared: PreparedLayer }) {
  const { id, layer, applied, beyond } = prepared;
  const actions = useBenchActions();
  const machine = useBench(machineOf);
  const unit = useBench(unitOf);
  const own = useBench((state) => jobOf(state).settings[id]);
  const settings: Partial<LayerSettings> = applied.settings ?? own ?? {};
  const hold: SettingHold = {
    settings,
    has: (setting) => settingsOf(layer.operation).includes(setting),
    set: (setting) => (value) => {
      actions.edit(t('{{words}} of {{name}}', { words: said(settingOf(setting).words), name: layer.name }), (job) =>
        changeSetting(job, id, setting, value),
      );
      return undefined;
    },
    look: (setting) => ({
      marked: applied.sources[setting]?.kind === 'hand',
      fault: beyond.find((entry) => entry.setting === setting)?.sentence,
    }),
  };
  const { set, look } = hold;
  const finer = finerSettings();
  const isUsual = finer.every((setting) => {
    const value = settings[setting];
    return value === undefined || value === settingOf(setting).usual;
  });
  const [open, setOpen] = useState(!isUsual);
  const watts = wattsOf(machine);
  const power = settings.powerPercent;
  return (
    <>
      {applied.settings === null && (
        <p className="mb-2 font-semibold text-stop">
          {t('No recipe here. Burn a test card first, or type power and speed.')}
        </p>
      )}
      <div className="grid grid-cols-2 gap-2">
        <TypedField
          label={
            power === undefined
              ? t('Power')
              : t('Power ({{watts}} W)', { watts: Number(((watts * power) / 100).toPrecision(3)) })
          }
          unit="%"
          text={power === undefined ? '' : String(power)}
          parse={parsePercent}
          commit={set('powerPercent')}
          step={(delta) => (power ?? 0) + delta}
          {...look('powerPercent')}
        />
        <SpeedField
          label={t('Speed')}
          value={settings.speedMmPerS}
          topSpeed={machine.topSpeed}
          commit={set('speedMmPerS')}
          {...look('speedMmPerS')}
        />
        <TypedField
          label={t('Passes')}
          text={String(settings.passes ?? 1)}
          parse={parsePercent}
          commit={set('passes')}
          step={(delta) => Math.max(1, (settings.passes ?? 1) + Math.sign(delta))}
          {...look('passes')}
        />
        {hold.has('kerfMm') && (
          <LengthField
            label={t('Kerf')}
            unit={unit}
            value={settings.kerfMm ?? 0}
            takes="not-below-0"
            commit={set('kerfMm')}
            {...look('kerfMm')}
          />
        )}
        {hold.has('lineSpacingMm') && (
          <LengthField
            label={t('Lines ({{lineSpacingMm}} per inch)', {
              lineSpacingMm: Math.round(25.4 / (settings.lineSpacingMm ?? 0.1)),
            })}
            unit={unit}
            value={settings.lineSpacingMm ?? 0.1}
            isFine
            commit={set('lineSpacingMm')}
            {...look('lineSpacingMm')}
          />
        )}
      </div>
      <details
        className="mt-2"
        open={open || beyond.some(({ setting }) => finer.includes(setting))}
        onToggle={(event) => setOpen(event.currentTarget.open)}
      >
        <summary className="cursor-pointer text-quiet">
          {t('Finer settings{{isUsual}}', { isUsual: isUsual ? '' : t(' (some are set)') })}
        </summary>
        <FinerFields hold={hold} machine={machine} />
      </details>
      <SourceLine prepared={prepared} />
    </>
  );
}

/** How the book knows what the layer burns with. */
function SourceLine({ prepared: { applied } }: { prepared: PreparedLayer }) {
  const machine = useBench(machineOf);
  const speedUnit = useSpeedUnit();
  const { basis } = applied;
  if (!basis) return null;
  if (basis.source.kind === 'recipe') return <p className="mt-2 text-[12px] text-quiet">{basis.recipe?.note}</p>;
  const { from, doubt } = basis.source;
  const speed = (mmPerS: number) => formatSpeed(mmPerS, speedUnit, machine.topSpeed);
  return (
    <p className="mt-2 text-[12px] text-warn">
      {t('Worked out from {{from}}. The right speed is somewhere from {{least}} to {{most}}: burn a test card first.', {
        from,
        least: speed(doubt.least),
        most: speed(doubt.most),
      })}
    </p>
  );
}

/** Where a layer's settings came from, in a word or two. */
export function sourceWords(sources: Readonly<Partial<Record<keyof LayerSettings, SettingSource>>>): string {
  const all = Object.values(sources);
  const recipe = all.find((source) => source.kind === 'recipe');
  const byHand = all.some((source) => source.kind === 'hand') ? [t('changed by hand')] : [];
  const byKey = all.some((source) => source.kind === 'key') ? [t('by the key')] : [];
  if (recipe?.kind === 'recipe') return [said(recipe.evidence), ...byKey, ...byHand].join(', ');
  if (all.some((source) => source.kind === 'worked out')) return [t('worked out'), ...byKey, ...byHand].join(', ');
  return byHand.length > 0 ? t('by hand') : byKey.join('');
}

const parsePercent = (text: string) => parsePlain(text, '%', t('Type a number.'));
