import { useId } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly set: (value: string) => void;
  readonly most: number;
  readonly placeholder?: string;
  /** A name that a machine reads, such as that of a port: in figures, and never held against a dictionary. */
  readonly isCode?: boolean;
}

/** A line of words. */
export function Words({ label, value, set, most, placeholder, isCode = false }: Props) {
  const id = useId();
  return (
    <div className="flex min-w-0 flex-1 flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <input
        id={id}
        value={value}
        maxLength={most}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={!isCode}
        onChange={(event) => set(event.target.value)}
        className={`h-8 min-w-0 rounded-lg border border-line bg-raised placeholder:text-quiet focus:border-petrol focus:outline-none ${isCode ? 'figures px-2 text-[12.5px]' : 'px-2.5'}`}
      />
    </div>
  );
}
