/** As many lists are kept by `perEach`: those of one job's checks. */
const mostEachLists = 4;

/**
 * Keeps what is computed from every thing of a list, by place, of the lists that were asked for last. After an edit only
 * the things that are others are computed: where thousands stay, none of them is looked up.
 *
 * @param computeAll what is computed from each of some things; of each alone, whatever the others are.
 * @returns for a list, what is computed from each of its things, in its order.
 */
export function perEach<Thing, T>(
  computeAll: (things: readonly Thing[]) => readonly T[],
): (things: readonly Thing[]) => readonly T[] {
  let kept: { things: readonly Thing[]; values: readonly T[] }[] = [];
  return (things) => {
    const known = kept.find((entry) => entry.things === things);
    if (known) return known.values;
    let best: { values: readonly T[]; change: Change } | null = null;
    for (const entry of kept) {
      const most: number = (best?.change.places.length ?? things.length) - 1;
      const change = changeOf(entry.things, things, most);
      if (change) best = { values: entry.values, change };
    }
    const values = best ? valuesAfter(best.values, best.change, things, computeAll) : computeAll(things);
    kept = [{ things, values }, ...kept].slice(0, mostEachLists);
    return values;
  };
}

/** How a list differs from an earlier one. */
interface Change {
  /** As many of the earlier list's things are gone, and as many new ones stand there; none and none where each has its place. */
  readonly from: number;
  readonly removed: number;
  readonly added: number;
  /** The places of new things in the list. */
  readonly places: readonly number[];
}

/** How a list differs from an earlier one; null where more than `most` things are new. */
function changeOf<Thing>(others: readonly Thing[], things: readonly Thing[], most: number): Change | null {
  const places: number[] = [];
  if (others.length === things.length) {
    for (let i = 0; i < things.length; i++) if (others[i] !== things[i] && places.push(i) > most) return null;
    return { from: 0, removed: 0, added: 0, places };
  }
  const both = Math.min(others.length, things.length);
  let from = 0;
  while (from < both && others[from] === things[from]) from++;
  let after = 0;
  while (after < both - from && others[others.length - 1 - after] === things[things.length - 1 - after]) after++;
  const [removed, added] = [others.length - from - after, things.length - from - after];
  if (added > most) return null;
  for (let i = from; i < from + added; i++) places.push(i);
  return { from, removed, added, places };
}

function valuesAfter<Thing, T>(
  values: readonly T[],
  { from, removed, added, places }: Change,
  things: readonly Thing[],
  computeAll: (things: readonly Thing[]) => readonly T[],
): readonly T[] {
  const computed = computeAll(places.map((i) => things[i]));
  if (removed !== added) return values.slice(0, from).concat(computed, values.slice(from + removed));
  if (places.length === 0) return values;
  const all = values.slice();
  for (const [k, i] of places.entries()) all[i] = computed[k];
  return all;
}
