import type { CardSetting } from '@lambent/core/document';
import type { Machine } from '@lambent/core/machine';
import { cardSettingOf } from '@lambent/core/recipes';
import { NumberField } from '../../ui/number-field.tsx';
import { SpeedField } from '../../ui/speed-field.tsx';
import { t } from '../../words/words.ts';

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
  const { name, unit, least, most, isWhole } = cardSettingOf(setting);
  const words = label ?? name;
  if (setting === 'speedMmPerS') {
    const take = (speed: number) => {
      if (speed < least) return t('More than 0.');
      if (speed > most) return t('At most {{most}} mm/s.', { most });
      commit(speed);
    };
    return <SpeedField label={words} bare={bare} value={value} topSpeed={machine.topSpeed} commit={take} />;
  }
  return (
    <NumberField
      label={words}
      bare={bare}
      layout="stack"
      unit={unit}
      value={value}
      least={least}
      most={most}
      whole={isWhole}
      commit={commit}
    />
  );
}
