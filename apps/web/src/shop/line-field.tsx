import { useId, useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly most: number;
  readonly placeholder?: string;
  /** Takes no empty text: what stood there comes back. */
  readonly needed?: boolean;
  readonly settle: (value: string) => void;
}

/** A line of words that is settled when it is left or Enter is pressed; Escape takes back what was typed. */
export function LineField({ label, value, most, placeholder, needed, settle }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    const said = typed?.trim();
    setTyped(null);
    if (said !== undefined && said !== value && !(needed && said === '')) settle(said);
  };
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <input
        id={id}
        value={typed ?? value}
        maxLength={most}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') setTyped(null);
        }}
        className="h-8 min-w-0 rounded-lg border border-line bg-raised px-2.5 text-ink placeholder:text-quiet focus:border-petrol focus:outline-none"
      />
    </div>
  );
}
