import { lengthUnits, type Parsed } from '@lambent/core/units';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { useShownUnit } from '../stores/length-unit.ts';
import { asTyped, inSentence, written } from '../stores/numbers.ts';
import { giveKeysToBed } from './to-bed.ts';

interface Props<T> {
  label: string;
  /** What stands in the field while nobody types. */
  text: string;
  /** The unit, shown behind the figure where the text does not hold it. */
  unit?: string;
  /** Reads what was typed. */
  parse: (text: string) => Parsed<T>;
  /** Holds several numbers, so that a space or a comma may stand between two of them. */
  isList?: boolean;
  /** Takes the value that was typed; gives a sentence back to refuse it. */
  commit: (value: T) => string | undefined;
  /** Shows what is being typed where it is used, before it is taken; Escape shows what stood there. */
  preview?: (value: T) => void;
  /** The value one arrow key away; `size` is 1, 10 with Shift, 0.1 with Alt. */
  step?: (delta: number) => T;
  layout?: 'row' | 'stack';
  /** Leaves the label to screen readers, where what stands before the field says it. */
  bare?: boolean;
  disabled?: boolean;
  /** What holds while the field is empty. */
  placeholder?: string;
  /** Marks a value that differs from where it would come from. */
  marked?: boolean;
  /** What is wrong with the value that stands there. */
  fault?: string;
}

/** A figure that is typed: Enter and Tab commit, Escape restores, arrows step; what cannot be read says why. */
export function TypedField<T = number>({
  label,
  text: plain,
  unit,
  parse: parsePlain,
  isList = false,
  commit,
  preview,
  step,
  layout = 'stack',
  bare,
  placeholder,
  disabled,
  marked,
  fault,
}: Props<T>) {
  const id = useId();
  const text = written(plain);
  const [draft, setDraft] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const before = useRef('');
  const parse = (typed: string) => parsePlain(isList ? typed : asTyped(typed));
  const show = (typed: string) => {
    const parsed = preview && parse(typed);
    if (parsed?.ok) preview?.(parsed.value);
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new value from outside clears an old complaint
  useEffect(() => setTrouble(null), [text]);

  /** Does something with the field once it shows its text; not when another has the focus by then, which it would take. */
  const whenShown = (act: (field: HTMLInputElement) => void) => {
    requestAnimationFrame(() => {
      if (input.current && document.activeElement === input.current) act(input.current);
    });
  };
  /** @returns whether it was taken */
  const take = (value: T): boolean => {
    const refusal = commit(value);
    setTrouble(refusal ?? null);
    if (!refusal) setDraft(null);
    return !refusal;
  };
  const settle = (): boolean => {
    if (draft === null || draft.trim() === text.trim()) {
      setDraft(null);
      setTrouble(null);
      return true;
    }
    const parsed = parse(draft);
    if (parsed.ok) return take(parsed.value);
    setTrouble(parsed.reason);
    return false;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      const isTaken = settle();
      whenShown((field) => {
        field.select();
        if (isTaken) giveKeysToBed(field);
      });
    } else if (event.key === 'Escape') {
      // One step back: first what was typed, then out of the field, or out of what it stands in.
      if (draft === null && trouble === null) {
        if (input.current) giveKeysToBed(input.current);
        return;
      }
      event.stopPropagation();
      show(before.current);
      setDraft(null);
      setTrouble(null);
      whenShown((field) => field.select());
    } else if (step && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      const size = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
      take(step(event.key === 'ArrowUp' ? size : -size));
    }
  };

  const shownIn = useShownUnit();
  const row = layout === 'row';
  const wrong = trouble ?? fault;
  return (
    <div className={row ? 'min-w-0' : 'min-w-0 flex-1'}>
      <div className={row ? 'flex items-center gap-2' : 'flex flex-col gap-1'}>
        <label
          htmlFor={id}
          className={bare ? 'sr-only' : row ? 'min-w-4 shrink-0 whitespace-nowrap text-quiet' : 'text-quiet'}
        >
          {label}
        </label>
        <div
          className={`flex h-8 min-w-0 items-center pointer-coarse:h-11 ${row ? 'flex-1' : ''} rounded-lg border bg-raised pr-2 focus-within:border-petrol focus-within:ring-1 focus-within:ring-petrol ${wrong ? 'border-stop' : marked ? 'border-warn' : 'border-line'}`}
        >
          <input
            ref={input}
            id={id}
            value={draft ?? text}
            disabled={disabled}
            placeholder={placeholder}
            data-settled={draft === null}
            aria-invalid={wrong !== undefined}
            aria-describedby={wrong ? `${id}-trouble` : undefined}
            onFocus={(event) => {
              before.current = text;
              event.target.select();
            }}
            onChange={(event) => {
              setDraft(event.target.value);
              show(event.target.value);
            }}
            onBlur={settle}
            onKeyDown={onKeyDown}
            className="figures h-full w-full min-w-0 bg-transparent px-2 text-[12.5px] outline-none placeholder:font-sans placeholder:text-quiet disabled:opacity-60"
            autoComplete="off"
            spellCheck={false}
          />
          {unit && <span className="figures shrink-0 text-[12px] text-quiet">{unit}</span>}
        </div>
      </div>
      {wrong && (
        <p id={`${id}-trouble`} role="alert" className="mt-1 text-[12px] text-stop">
          {inSentence(wrong, lengthUnits.find((known) => known === unit) ?? shownIn)}
        </p>
      )}
    </div>
  );
}
