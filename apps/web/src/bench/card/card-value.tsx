import type { CardSetting } from '@lambent/core/document';
import type { Machine } from '@lambent/core/machine';
import { cardSettingNames } from '@lambent/core/recipes';
import { NumberField } from '../../ui/number-field.tsx';
import { SpeedField } from '../../ui/speed-field.tsx';

const units: Partial<Record<CardSetting, string>> = {
  powerPercent: '%',
  greyPercent: '%',
  focusMm: 'mm',
  lineSpacingMm: 'mm',
};
/** What a value may be before the machine has its say. */
const limits: Record<Exclude<CardSetting, 'speedMmPerS'>, readonly [number, number]> = {
  powerPercent: [0.1, 100],
  passes: [1, 50],
  focusMm: [-100, 100],
  lineSpacingMm: [0.01, 5],
  greyPercent: [0, 100],
};

interface ValueProps {
  label?: string;
  bare?: boolean;
  setting: CardSetting;
  value: number;
  machine: Machine;
  commit: (value: number) => void;
}

/** A value of one of the settings that a card can try. */
export function CardValue({ label, bare, setting, value, machine, commit }: ValueProps) {
  const name = label ?? cardSettingNames[setting].name;
  if (setting === 'speedMmPerS') {
    const take = (speed: number) => (speed > 0 ? void commit(speed) : 'More than 0.');
    return <SpeedField label={name} bare={bare} value={value} topSpeed={machine.topSpeed} commit={take} />;
  }
  const [least, most] = limits[setting];
  return (
    <NumberField
      label={name}
      bare={bare}
      layout="stack"
      unit={units[setting]}
      value={value}
      least={least}
      most={most}
      whole={setting === 'passes'}
      commit={commit}
    />
  );
}
