import { type Machine, type MachineFigureName, machineFigures } from '@lambent/core/machine';
import { type Parsed, parseLengthFrom, parseSpeed } from '@lambent/core/units';
import { counted } from '../stores/numbers.ts';
import { formatLength } from '../ui/figures.ts';
import { parsePlain } from '../ui/plain-number.ts';
import { TypedField } from '../ui/typed-field.tsx';
import { said, t } from '../words/words.ts';
import { Doubts } from './doubts.tsx';
import type { MachineDraft } from './machine-draft.ts';

/** The figures that may be missing, and what holds then. */
const missing: Readonly<Partial<Record<MachineFigureName, string>>> = {
  measuredW: t('as rated'),
  accelerationY: t('the same'),
  lookAhead: t('far enough'),
  moveMs: t('none'),
  characterMs: t('by its line'),
  jerk: t('no limit'),
  arcsWithin: t('takes none'),
  timeShare: '100',
  bedGapMm: t('not known'),
  leastPower: '0',
  mostPower: '100',
};

/** A figure of a machine; one that may be missing is left empty. */
export function FigureField({ name, draft, change, doubts }: { name: MachineFigureName } & MachineDraft) {
  const { unit, least, most } = machineFigures[name];
  const label = said(machineFigures[name].name);
  const mayBeEmpty = missing[name] !== undefined;
  const value = draft[name] ?? null;
  const set = (next: number | null) => change({ [name]: next ?? undefined } as Partial<Machine>);
  const whole = unit === 'moves';
  const isWithin = (next: number | null) =>
    next === null ? mayBeEmpty : next >= least && next <= most && (!whole || Number.isInteger(next));
  const range = t('{{whole}} {{least}} to {{most}}{{unit}}', {
    whole: whole ? t('A whole number from') : t('From'),
    least: counted(least),
    most: counted(most),
    unit: unit && ` ${unit}`,
  });
  return (
    <Doubts about={name} doubts={doubts}>
      <TypedField<number | null>
        label={label}
        text={textOf(value, unit)}
        unit={unit === 'moves' ? t('moves') : unit}
        placeholder={missing[name]}
        parse={(text) =>
          text.trim() === '' && mayBeEmpty ? { ok: true, value: null } : parseFigure(text, unit, draft)
        }
        preview={(next) => {
          if (isWithin(next)) set(next);
        }}
        commit={(next) => {
          if (!isWithin(next)) return `${range}${mayBeEmpty ? t(', or nothing') : ''}.`;
          set(next);
          return undefined;
        }}
      />
    </Doubts>
  );
}

function textOf(value: number | null, unit: string): string {
  if (value === null) return '';
  return unit === 'mm' ? formatLength(value, 'mm', { bare: true, decimals: 4 }) : String(value);
}

function parseFigure(text: string, unit: string, { topSpeed }: Machine): Parsed {
  if (unit === 'mm') return parseLengthFrom(text, 'mm', 0);
  if (unit === 'mm/s') return parseSpeed(text, 'mm/s', topSpeed);
  return parsePlain(text, unit, t('Type a number.'));
}

/** A place on the bed as the machine counts, or an offset: X and Y. Empty where there is none. */
export function PlaceField(props: { name: 'rest' | 'pointer'; label: string } & MachineDraft) {
  const { name, label, draft, change, doubts } = props;
  const value = draft[name] ?? null;
  const set = (next: { x: number; y: number } | null) => change({ [name]: next ?? undefined });
  return (
    <Doubts about={name} doubts={doubts}>
      <TypedField<{ x: number; y: number } | null>
        label={label}
        text={value ? `${value.x}; ${value.y}` : ''}
        unit="mm"
        placeholder={name === 'rest' ? t('at zero') : t('has none')}
        parse={parsePlace}
        isList
        preview={set}
        commit={(next) => {
          set(next);
          return undefined;
        }}
      />
    </Doubts>
  );
}

function parsePlace(text: string): Parsed<{ x: number; y: number } | null> {
  if (text.trim() === '') return { ok: true, value: null };
  // Parted by a semicolon, decimals may have a comma.
  const parts = text.includes(';') ? text.replaceAll(',', '.') : text;
  const [, x, y] = /^\s*([+-]?[\d.]+)\s*[,; ]\s*([+-]?[\d.]+)\s*(?:mm)?\s*$/.exec(parts) ?? [];
  const place = { x: Number(x), y: Number(y) };
  return Number.isFinite(place.x) && Number.isFinite(place.y)
    ? { ok: true, value: place }
    : { ok: false, reason: t('Type X and Y, for example 0; 390.') };
}
