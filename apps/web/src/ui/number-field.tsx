import { t } from '../words/words.ts';
import { parsePlain } from './plain-number.ts';
import { TypedField } from './typed-field.tsx';

interface Props {
  label: string;
  value: number;
  unit?: string;
  least: number;
  most: number;
  /** Takes whole numbers only. */
  whole?: boolean;
  commit: (value: number) => void;
  layout?: 'row' | 'stack';
  bare?: boolean;
}

/** A plain number within limits. */
export function NumberField({ label, value, unit, least, most, whole, commit, layout = 'row', bare }: Props) {
  const take = (typed: number): string | undefined => {
    if (!(typed >= least && typed <= most) || (whole && !Number.isInteger(typed))) {
      return t('{{whole}} from {{least}} to {{most}}.', {
        whole: whole ? t('A whole number') : t('A number'),
        least,
        most,
      });
    }
    commit(typed);
    return undefined;
  };
  return (
    <TypedField
      label={label}
      layout={layout}
      bare={bare}
      unit={unit}
      text={String(Math.round(value * 1000) / 1000)}
      parse={(text) => parsePlain(text, '%', t('Type a number.'))}
      commit={take}
      step={(delta) =>
        Math.max(least, Math.min(most, value + (whole ? Math.sign(delta) * Math.max(1, Math.abs(delta)) : delta)))
      }
    />
  );
}
