import { useId } from 'react';

/** A field for a day, such as 2026-12-24; empty where none is chosen. */
export function DayField({ label, value, set }: { label: string; value: string; set: (day: string) => void }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-quiet">
        {label}
      </label>
      <input
        id={id}
        type="date"
        value={value}
        onChange={(event) => set(event.target.value)}
        className="h-9 rounded-lg border border-line bg-raised px-3"
      />
    </div>
  );
}
