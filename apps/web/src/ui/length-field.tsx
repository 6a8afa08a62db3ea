import { formatLength, type LengthUnit, parseLength } from '@lambent/core';
import { TypedField } from './typed-field.tsx';

/** What one arrow key steps by, in mm. */
const stepMm: Record<LengthUnit, number> = { mm: 1, cm: 1, in: 25.4 / 16 };

interface Props {
  label: string;
  /** In mm. */
  value: number;
  unit: LengthUnit;
  commit: (mm: number) => string | undefined;
  layout?: 'row' | 'stack';
  disabled?: boolean;
}

/** A length: shown in `unit`, typed in any unit or as a sum, always mm inside. */
export function LengthField({ value, unit, ...rest }: Props) {
  return (
    <TypedField
      {...rest}
      text={formatLength(value, unit, { bare: true, fixed: unit === 'mm' })}
      unit={unit}
      parse={(text) => parseLength(text, unit)}
      step={(by) => value + by * stepMm[unit]}
    />
  );
}
