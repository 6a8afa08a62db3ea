import type { Machine } from '@lambent/core/machine';
import { type Air, allSettings, type LayerSettings, type SettingName, settingOf } from '@lambent/core/settings';
import { useShownUnit } from '../stores/length-unit.ts';
import { Choice, type Option } from '../ui/choice.tsx';
import { LengthField } from '../ui/length-field.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { Tick } from '../ui/tick.tsx';
import { TypedField } from '../ui/typed-field.tsx';
import { said, t } from '../words/words.ts';
import type { SettingHold } from './setting-hold.ts';

/** The settings that stand behind *Finer settings*; those whose fields take a whole row come last. */
export function finerSettings(): SettingName[] {
  const finer = [...allSettings()].filter(([, { isFiner }]) => isFiner);
  const isWide = (kind: string) => kind === 'yes or no' || kind === 'air' || kind === 'word';
  return finer
    .toSorted(([, a], [, b]) => Number(isWide(a.field.kind)) - Number(isWide(b.field.kind)))
    .map(([name]) => name);
}

/** Focus, air and waiting of a layer; how its scan lines run. */
export function FinerFields({ hold, machine }: { hold: SettingHold; machine: Machine }) {
  return (
    <div className="mt-2 grid grid-cols-2 items-start gap-2">
      {finerSettings()
        .filter(hold.has)
        .map((setting) => (
          <FinerField key={setting} hold={hold} setting={setting} machine={machine} />
        ))}
    </div>
  );
}

function FinerField({ hold, setting, machine }: { hold: SettingHold; setting: SettingName; machine: Machine }) {
  const { field, usual } = settingOf(setting);
  const label = said(settingOf(setting).label);
  const value = hold.settings[setting] ?? usual;
  const set = hold.set(setting) as (value: unknown) => undefined;
  switch (field.kind) {
    case 'figure':
    case 'figure or found':
      return <FigureField hold={hold} setting={setting} step={field.step} isFoundAt0={field.kind !== 'figure'} />;
    case 'yes or no':
      return (
        <div className="col-span-2">
          <Tick checked={value === true} set={set}>
            {label}
          </Tick>
        </div>
      );
    case 'word':
      return (
        <div className="col-span-2">
          <Choice label={label} value={String(value)} options={wordOptions(field.words)} choose={set} />
        </div>
      );
    case 'air':
      return <AirField hold={hold} machine={machine} />;
    case 'own':
      return null;
  }
}

/** The words that a setting can be. */
function wordOptions(words: Readonly<Record<string, string>>): Option<string>[] {
  return Object.entries(words).map(([value, text]) => ({ value, text: said(text) }));
}

/** A setting that is a plain number. @param isFoundAt0 whether 0 stands for: as is needed */
function FigureField(props: { hold: SettingHold; setting: SettingName; step: number; isFoundAt0: boolean }) {
  const { hold, setting, step, isFoundAt0 } = props;
  const { unit } = settingOf(setting);
  const label = said(settingOf(setting).label);
  const value = Number(hold.settings[setting] ?? 0);
  const set = hold.set(setting) as (value: number | null) => undefined;
  const shown = useShownUnit();
  const take = (typed: number) => set(isFoundAt0 && typed === 0 ? null : typed);
  if (unit === 'mm') {
    return (
      <LengthField
        label={label}
        unit={shown}
        value={value}
        takes={isFoundAt0 ? 'not-below-0' : undefined}
        isFine
        commit={take}
        {...hold.look(setting)}
      />
    );
  }
  return (
    <TypedField
      label={label}
      unit={unit}
      text={String(value)}
      parse={(text) => parsePlain(text, unit, t('Type a number.'))}
      commit={take}
      step={(size) => {
        const next = Math.round((value + size * step) * 1000) / 1000;
        return isFoundAt0 ? Math.max(0, next) : next;
      }}
      {...hold.look(setting)}
    />
  );
}

function AirField({ hold: { settings, set, look }, machine }: { hold: SettingHold; machine: Machine }) {
  const air: Air = settings.air ?? 'off';
  const levels = machine.air?.levels ?? [];
  const options: Option<string>[] = [
    { value: 'off', text: t('Off') },
    { value: 'low', text: t('Low') },
    { value: 'high', text: t('High') },
  ].filter(({ value }) => value === 'off' || value === air || levels.some((level) => level === value));
  if (machine.air?.mostBar || typeof air === 'number') options.push({ value: 'bar', text: t('By pressure') });
  const { fault, marked } = look('air');
  if (options.length === 1) return null;
  return (
    <div className="col-span-2 flex flex-col gap-2">
      <Choice
        label={t('Air')}
        value={typeof air === 'number' ? 'bar' : air}
        options={options}
        choose={(next) => set('air')(next === 'bar' ? 0.5 : (next as LayerSettings['air']))}
      />
      {typeof air === 'number' && (
        <TypedField
          label={t('Pressure')}
          unit="bar"
          text={String(air)}
          parse={(text) => parsePlain(text, 'bar', t('Type a number.'))}
          commit={set('air')}
          step={(delta) => Math.round((air + delta * 0.1) * 100) / 100}
          marked={marked}
        />
      )}
      {fault && (
        <p role="alert" className="text-[12px] text-stop">
          {fault}
        </p>
      )}
    </div>
  );
}
