import type { LengthUnit } from '@lambent/core/units';
import { t } from '../words/words.ts';
import { squareIn } from './area.ts';
import { parsePlain } from './plain-number.ts';
import { TypedField } from './typed-field.tsx';

interface Props {
  label: string;
  unit: LengthUnit;
  valueMm2: number;
  /** From 0 to so many mm². */
  mostMm2: number;
  commit: (mm2: number) => void;
}

/** An area, typed and shown in squares of a unit. */
export function AreaField({ label, unit, valueMm2, mostMm2, commit }: Props) {
  const square = squareIn(unit);
  return (
    <TypedField
      label={label}
      layout="stack"
      unit={`${unit}²`}
      text={String(Number((valueMm2 / square).toPrecision(4)))}
      parse={(text) => parsePlain(text, '%', t('Type a number.'))}
      commit={(typed) => {
        if (typed >= 0 && typed * square <= mostMm2) {
          commit(typed * square);
          return undefined;
        }
        return t('A number from 0 to {{most}}.', { most: Number((mostMm2 / square).toPrecision(4)) });
      }}
    />
  );
}
