import { type LengthUnit, parseLengthFrom } from '@lambent/core/units';
import { t } from '../words/words.ts';
import { formatLength } from './figures.ts';
import { TypedField } from './typed-field.tsx';

/** What one arrow key steps by, in mm. */
const stepMm: Record<LengthUnit, number> = { mm: 1, cm: 1, in: 25.4 / 16 };

/** What one arrow key steps a small length by, in mm. */
const fineStepMm = 0.01;

const fine = { decimals: 5 };

interface Props {
  label: string;
  /** In mm. */
  value: number;
  unit: LengthUnit;
  /** Which lengths make sense; any where nothing is said. */
  takes?: 'more-than-0' | 'not-below-0';
  /** The least and the most that it can be, in mm. */
  within?: readonly [least: number, most: number];
  /** Of so small lengths that hundredths of a mm say too little. */
  isFine?: boolean;
  /** Takes the length, or says in a sentence why not. */
  commit: ((mm: number) => string | undefined) | ((mm: number) => void);
  layout?: 'row' | 'stack';
  bare?: boolean;
  disabled?: boolean;
  marked?: boolean;
  fault?: string;
}

/** A length: shown in `unit`, typed in any unit, as a sum or as a change of what it is, always mm inside. */
export function LengthField({ value, unit, takes, within, isFine = false, commit, ...rest }: Props) {
  const take = (mm: number): string | undefined => {
    if (takes === 'more-than-0' && !(mm > 0)) return t('More than 0.');
    if (takes === 'not-below-0' && mm < 0) return t('Not below 0.');
    if (within && !(mm >= within[0] && mm <= within[1]))
      return t('From {{within}} to {{within2}} mm.', { within: within[0], within2: within[1] });
    const refusal = commit(mm);
    return typeof refusal === 'string' ? refusal : undefined;
  };
  return (
    <TypedField
      {...rest}
      text={formatLength(value, unit, { bare: true, ...(isFine ? fine : { fixed: unit === 'mm' }) })}
      unit={unit}
      parse={(text) => parseLengthFrom(text, unit, value)}
      commit={take}
      step={(delta) =>
        Math.max(within?.[0] ?? Number.NEGATIVE_INFINITY, value + delta * (isFine ? fineStepMm : stepMm[unit]))
      }
    />
  );
}
