import { useId } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder: string;
  readonly commit: (value: string) => void;
}

/** A name of a place on the network, or of a port. */
export function LineField({ label, value, placeholder, commit }: Props) {
  const id = useId();
  return (
    <div className="flex min-w-0 flex-1 flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <input
        id={id}
        value={value}
        maxLength={255}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => commit(event.target.value)}
        className="figures h-8 w-full min-w-0 rounded-lg border border-line bg-raised px-2 text-[12.5px] placeholder:text-quiet focus:border-petrol focus:outline-none"
      />
    </div>
  );
}
