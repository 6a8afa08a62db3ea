/** A figure of a list, with its name. */
export function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div className="flex justify-between gap-3">
      <dt className="font-sans">{name}</dt>
      <dd>{value}</dd>
    </div>
  );
}
