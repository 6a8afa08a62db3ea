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
    let [best, most]: [(typeof kept)[number] | null, number] = [null, 0];
    for (const entry of kept) {
      const same = sameThings(entry.things, things);
      if (same === things.length && same === entry.things.length) return entry.values;
      if (same > most) [best, most] = [entry, same];
    }
    const values = best ? valuesAfter(best, things, computeAll) : computeAll(things);
    kept = [{ things, values }, ...kept].slice(0, mostEachLists);
    return values;
  };
}

/** How many things of a list stand at the same place in another one. Places are counted from the end too, where their lengths differ. */
function sameThings<Thing>(others: readonly Thing[], things: readonly Thing[]): number {
  const shift = others.length - things.length;
  const both = Math.min(others.length, things.length);
  let count = 0;
  if (shift === 0) {
    for (let i = 0; i < both; i++) if (others[i] === things[i]) count++;
    return count;
  }
  while (count < both && others[count] === things[count]) count++;
  const before = count;
  for (let i = things.length - 1; count < both && i >= before && others[i + shift] === things[i]; i--) count++;
  return count;
}

function valuesAfter<Thing, T>(
  { things: others, values }: { things: readonly Thing[]; values: readonly T[] },
  things: readonly Thing[],
  computeAll: (things: readonly Thing[]) => readonly T[],
): readonly T[] {
  const shift = others.length - things.length;
  const fresh: number[] = [];
  const all = things.map((thing, i): T => {
    if (i < others.length && others[i] === thing) return values[i];
    const fromEnd = i + shift;
    if (fromEnd < 0 || others[fromEnd] !== thing) fresh.push(i);
    return values[fromEnd];
  });
  const computed = computeAll(fresh.map((i) => things[i]));
  for (const [k, i] of fresh.entries()) all[i] = computed[k];
  return all;
}
