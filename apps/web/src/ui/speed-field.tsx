import { parseSpeed } from '@lambent/core/units';
import { useSpeedUnit } from '../stores/speed-unit.ts';
import { formatSpeed } from './figures.ts';
import { TypedField } from './typed-field.tsx';

interface Props {
  label: string;
  /** In mm/s. */
  value: number | undefined;
  /** That of the machine, of which per cents are. */
  topSpeed: number;
  commit: (mmPerS: number) => string | undefined;
  bare?: boolean;
  marked?: boolean;
  fault?: string;
}

/** A speed: shown and typed in the unit of whoever sits here, always mm/s inside. */
export function SpeedField({ value, topSpeed, ...rest }: Props) {
  const unit = useSpeedUnit();
  return (
    <TypedField
      unit={unit}
      text={value === undefined ? '' : formatSpeed(value, unit, topSpeed).split(' ')[0]}
      parse={(text) => parseSpeed(text, unit, topSpeed)}
      step={(delta) => (value ?? 0) + delta}
      {...rest}
    />
  );
}
