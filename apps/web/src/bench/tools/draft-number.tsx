import { parseLength } from '@lambent/core/units';
import { useState } from 'react';
import { asTyped, useInSentence } from '../../stores/numbers.ts';
import { formatLength } from '../../ui/figures.ts';
import { parseAngle } from '../../ui/plain-number.ts';
import { useBench } from '../context.ts';
import { unitOf } from '../state/document.ts';

interface Props {
  readonly label: string;
  readonly kind: 'length' | 'angle';
  readonly value: number;
  readonly isTyped: boolean;
  /** Takes a number. @returns why not, in a sentence */
  readonly take: (value: number) => string | undefined;
  /** Enter was pressed, and the number taken. */
  readonly enter: () => void;
  /** Escape was pressed. */
  readonly leave: () => void;
  /** Takes what is typed as it is typed, as far as it makes sense yet. */
  readonly follows?: boolean;
}

/** A number beside the pointer: of what is being drawn, or where it begins. */
export function DraftNumber({ label, kind, value, isTyped, take, enter, leave, follows = false }: Props) {
  const unit = useBench(unitOf);
  const [text, setText] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const shown = kind === 'length' ? formatLength(value, unit, { bare: true }) : String(Math.round(value * 100) / 100);
  const inSentence = useInSentence();
  const parse = (typed: string) => (kind === 'length' ? parseLength(asTyped(typed), unit) : parseAngle(asTyped(typed)));
  const settle = (): boolean => {
    if (text === null || text.trim() === '') return true;
    const parsed = parse(text);
    const refusal = parsed.ok ? take(parsed.value) : parsed.reason;
    setTrouble(refusal ?? null);
    if (!refusal) setText(null);
    return !refusal;
  };
  const follow = (typed: string) => {
    const parsed = follows ? parse(typed) : null;
    if (parsed?.ok) take(parsed.value);
  };
  return (
    <label className="flex flex-col">
      <span
        className={`flex h-7 items-center gap-1 rounded-md border bg-raised px-1.5 focus-within:border-petrol ${trouble ? 'border-stop' : isTyped ? 'border-petrol' : 'border-line'}`}
      >
        <span className="text-[12px] text-quiet">{label}</span>
        <input
          aria-label={label}
          value={text ?? shown}
          className="figures w-[62px] bg-transparent text-[12.5px] outline-none"
          autoComplete="off"
          onChange={(event) => {
            setText(event.target.value);
            follow(event.target.value);
          }}
          onBlur={settle}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              event.preventDefault();
              event.stopPropagation();
              if (settle()) {
                event.currentTarget.blur();
                enter();
              }
            } else if (event.key === 'Tab' && !settle()) event.preventDefault();
            else if (event.key === 'Escape') {
              event.stopPropagation();
              event.currentTarget.blur();
              leave();
            }
          }}
        />
        <span className="figures text-[12px] text-quiet">{kind === 'length' ? unit : '°'}</span>
      </span>
      {trouble && (
        <span role="alert" className="max-w-[150px] text-[12px] text-stop">
          {inSentence(trouble)}
        </span>
      )}
    </label>
  );
}
