import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { Check, ChevronsUpDown } from 'lucide-react';
import type { KeyboardEvent, ReactNode } from 'react';
import { t } from '../words/words.ts';

export interface Option<T extends string> {
  readonly value: T;
  readonly text: string;
  /** Said in quieter ink behind the text. */
  readonly aside?: string;
  readonly mark?: ReactNode;
}

interface Props<T extends string> {
  label: string;
  value: T | null;
  options: readonly Option<T>[];
  choose: (value: T) => void;
  /** What the button says while nothing is chosen. */
  empty?: string;
  /** `field` fills its line, `slim` does beside fields of figures, `chip` is as wide as its words, `alert` asks for a choice. */
  look?: 'field' | 'slim' | 'chip' | 'alert';
  icon?: ReactNode;
  /** Leaves the label of a field to screen readers, where what stands before it says it. */
  bare?: boolean;
}

const looks = {
  field: 'h-9 w-full rounded-lg border-line bg-raised px-3 font-semibold',
  slim: 'h-8 w-full rounded-lg border-line bg-raised px-2.5 font-semibold',
  chip: 'h-7 rounded-lg border-line bg-table px-2 font-semibold',
  alert: 'h-7 rounded-lg border-dashed border-stop bg-raised px-2.5 font-semibold text-stop',
};

/** One of a list. */
export function Choice<T extends string>({
  label,
  value,
  options,
  choose,
  empty = t('Choose'),
  look = 'field',
  icon,
  bare = look !== 'field',
}: Props<T>) {
  const chosen = options.find((option) => option.value === value);
  const isWide = look === 'field' || look === 'slim';
  const list = (
    <Listbox value={value} onChange={(next) => next !== null && choose(next)}>
      <ListboxButton
        aria-label={`${label}: ${[chosen?.text ?? empty, chosen?.aside].filter(Boolean).join(' ')}`}
        title={label}
        onKeyDown={(event: KeyboardEvent<HTMLButtonElement>) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          // The list opens by the arrow that goes down; Enter does the same.
          event.currentTarget.dispatchEvent(
            new globalThis.KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }),
          );
        }}
        className={`flex min-w-0 items-center ${isWide ? 'gap-2' : 'gap-1'} border text-left hover:border-petrol ${looks[look]}`}
      >
        {icon}
        <span className={isWide ? 'flex-1 truncate' : 'truncate'}>{chosen?.text ?? empty}</span>{' '}
        {chosen?.aside && <span className="figures shrink-0 text-[12px] font-normal text-quiet">{chosen.aside}</span>}
        <ChevronsUpDown size={14} className="shrink-0 text-quiet" aria-hidden />
      </ListboxButton>
      <ListboxOptions
        anchor={{ to: 'bottom start', gap: 4, padding: 8 }}
        modal={false}
        className="z-30 max-h-80 min-w-(--button-width) overflow-auto rounded-xl border border-line bg-raised p-1 shadow-float outline-none"
      >
        {options.map((option) => (
          <ListboxOption
            key={option.value}
            value={option.value}
            className="group flex items-center gap-2 rounded-lg px-2.5 py-1.5 data-focus:bg-petrol-soft"
          >
            <Check size={14} className="invisible shrink-0 text-petrol group-data-selected:visible" aria-hidden />
            {option.mark}
            <span className="flex-1 whitespace-nowrap">{option.text}</span>
            {option.aside && <span className="figures text-[12px] text-quiet">{option.aside}</span>}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
  if (bare) return list;
  return (
    <div className="grid grid-cols-[78px_minmax(0,1fr)] items-center gap-2">
      <span className="text-[12px] leading-tight text-quiet hyphens-auto [overflow-wrap:anywhere]" aria-hidden>
        {label}
      </span>
      {list}
    </div>
  );
}
