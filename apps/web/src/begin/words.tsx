import { useId } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly set: (value: string) => void;
  readonly most: number;
  readonly placeholder?: string;
}

/** A line of words. */
export function Words({ label, value, set, most, placeholder }: Props) {
  const id = useId();
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <input
        id={id}
        value={value}
        maxLength={most}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => set(event.target.value)}
        className="h-8 min-w-0 rounded-lg border border-line bg-raised px-2.5 placeholder:text-quiet focus:border-petrol focus:outline-none"
      />
    </div>
  );
}
