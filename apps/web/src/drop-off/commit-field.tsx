import { type ComponentProps, useId, useState } from 'react';

interface Props<Value> extends Pick<ComponentProps<'input'>, 'inputMode' | 'maxLength'> {
  readonly label: string;
  readonly value: string;
  /** What was typed, as it counts; null where it does not. */
  readonly read: (text: string) => Value | null;
  /** What is said where it does not count. */
  readonly wrong?: string;
  readonly commit: (value: Value) => void;
}

/** A field that counts when it is left, or by Enter; Escape brings back what was there. */
export function CommitField<Value>({ label, value, read, wrong, commit, ...input }: Props<Value>) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [isWrong, setWrong] = useState(false);
  const take = () => {
    if (typed === null || typed.trim() === value) return setTyped(null);
    const next = read(typed.trim());
    setWrong(next === null);
    if (next === null) return;
    setTyped(null);
    commit(next);
  };
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <input
        {...input}
        id={id}
        value={typed ?? value}
        aria-invalid={isWrong}
        aria-describedby={isWrong ? `${id}-trouble` : undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === 'Enter') take();
          if (event.key === 'Escape') {
            setTyped(null);
            setWrong(false);
          }
        }}
        className={`h-9 min-w-0 rounded-lg border bg-raised px-3 focus:border-petrol focus:outline-none pointer-coarse:h-11 ${isWrong ? 'border-stop' : 'border-line'}`}
      />
      {isWrong && (
        <p id={`${id}-trouble`} role="alert" className="text-[12px] text-stop">
          {wrong}
        </p>
      )}
    </div>
  );
}
