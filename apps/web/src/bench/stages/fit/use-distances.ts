import { useMemo, useState } from 'react';

/** How far apart pieces are packed, and from the edge of the sheet, in mm. */
export interface Distances {
  readonly gapMm: number;
  readonly marginMm: number;
}

/** Those of the stock until others are typed; what is typed counts while the part is open, for the next job is of other stock. */
export function useDistances(usual: Distances): [Distances, (change: Partial<Distances>) => void] {
  const [typed, setTyped] = useState<Partial<Distances>>({});
  const { gapMm = usual.gapMm, marginMm = usual.marginMm } = typed;
  const distances = useMemo(() => ({ gapMm, marginMm }), [gapMm, marginMm]);
  return [distances, (change) => setTyped({ ...typed, ...change })];
}
