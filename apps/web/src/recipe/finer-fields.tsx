import type { Air, LayerSettings, Machine } from '@lambent/core';
import { Choice, type Option } from '../ui/choice.tsx';
import { parsePlain } from '../ui/plain-number.ts';
import { Tick } from '../ui/tick.tsx';
import { TypedField } from '../ui/typed-field.tsx';
import type { SettingHold } from './setting-hold.ts';

/** A setting that is a plain number, where the operation has it. */
function Figure({
  hold,
  setting,
  label,
  unit,
  by = 1,
}: {
  hold: SettingHold;
  setting: 'focusMm' | 'focusStepMm' | 'scanAngle' | 'cornerPowerPercent' | 'pierceS' | 'cornerWaitS';
  label: string;
  unit: string;
  /** What an arrow key steps by. */
  by?: number;
}) {
  if (!hold.has(setting)) return null;
  const value = hold.settings[setting] ?? 0;
  return (
    <TypedField
      label={label}
      unit={unit}
      text={String(value)}
      parse={(text) => parsePlain(text, unit, 'Type a number.')}
      commit={hold.set(setting)}
      step={(size) => Math.round((value + size * by) * 1000) / 1000}
      {...hold.look(setting)}
    />
  );
}

/** Focus, air and waiting of a layer; how its scan lines run. */
export function FinerFields({ hold, machine }: { hold: SettingHold; machine: Machine }) {
  const { settings, has, set, look } = hold;
  return (
    <div className="mt-2 grid grid-cols-2 items-start gap-2">
      <Figure hold={hold} setting="focusMm" label="Focus above stock" unit="mm" by={0.1} />
      <Figure hold={hold} setting="focusStepMm" label="Deeper each pass" unit="mm" by={0.1} />
      <Figure hold={hold} setting="cornerPowerPercent" label="Least at corners" unit="%" />
      <Figure hold={hold} setting="pierceS" label="Wait at starts" unit="s" by={0.1} />
      <Figure hold={hold} setting="cornerWaitS" label="Wait at corners" unit="s" by={0.1} />
      <Figure hold={hold} setting="scanAngle" label="Lines turned" unit="°" by={5} />
      {has('runUpMm') && (
        <TypedField
          label="Run-up (0 as needed)"
          unit="mm"
          text={String(settings.runUpMm ?? 0)}
          parse={(text) => parsePlain(text, 'mm', 'Type a number.')}
          commit={(mm) => set('runUpMm')(mm === 0 ? null : mm)}
          step={(by) => Math.max(0, (settings.runUpMm ?? 0) + by)}
          {...look('runUpMm')}
        />
      )}
      <AirField hold={hold} machine={machine} />
      {has('bothWays') && (
        <div className="col-span-2">
          <Tick checked={settings.bothWays ?? true} set={set('bothWays')}>
            Lines burn there and back
          </Tick>
        </div>
      )}
    </div>
  );
}

function AirField({ hold: { settings, set, look }, machine }: { hold: SettingHold; machine: Machine }) {
  const air: Air = settings.air ?? 'off';
  const levels = machine.air?.levels ?? [];
  const options: Option<string>[] = [
    { value: 'off', text: 'Air off' },
    { value: 'low', text: 'Air low' },
    { value: 'high', text: 'Air high' },
  ].filter(({ value }) => value === 'off' || value === air || levels.some((level) => level === value));
  if (machine.air?.mostBar || typeof air === 'number') options.push({ value: 'bar', text: 'Air by pressure' });
  const { fault, marked } = look('air');
  if (options.length === 1) return null;
  return (
    <div className="col-span-2 flex flex-col gap-2">
      <Choice
        label="Air"
        value={typeof air === 'number' ? 'bar' : air}
        options={options}
        choose={(next) => set('air')(next === 'bar' ? 0.5 : (next as LayerSettings['air']))}
      />
      {typeof air === 'number' && (
        <TypedField
          label="Pressure"
          unit="bar"
          text={String(air)}
          parse={(text) => parsePlain(text, 'bar', 'Type a number.')}
          commit={set('air')}
          step={(by) => Math.round((air + by * 0.1) * 100) / 100}
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
