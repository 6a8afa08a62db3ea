interface Props {
  /** What is searched; it stands in the field while nothing is typed. */
  readonly label: string;
  readonly value: string;
  readonly change: (sought: string) => void;
  readonly className?: string;
}

/** What is sought, typed. */
export function SearchField({ label, value, change, className = '' }: Props) {
  return (
    <input
      type="search"
      aria-label={label}
      placeholder={label}
      value={value}
      onChange={(event) => change(event.target.value)}
      className={`h-9 rounded-lg border border-line bg-raised px-3 focus:border-petrol focus:outline-none ${className}`}
    />
  );
}
