interface Props {
  name: string;
  value: string;
  /** What those before it come to. */
  isSum?: boolean;
}

/** One line of a list of what a run comes to. */
export function Fact({ name, value, isSum = false }: Props) {
  return (
    <div className={`flex justify-between gap-3 ${isSum ? 'border-t border-line pt-1 font-bold' : ''}`}>
      <dt className="font-sans">{name}</dt>
      <dd>{value}</dd>
    </div>
  );
}
