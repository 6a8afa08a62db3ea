/** As many lists are kept by `perEach`: those of one job's checks. */
const mostEachLists = 8;

/**
 * Keeps what is computed from every thing of a list, by place, of the lists that were asked for last. After an edit only
 * the things that are others are computed: where thousands stay, none of them is looked up.
 *
 * @param computeAll what is computed from each of some things; of each alone, whatever the others are.
 * @returns for a list, what is computed from each of its things, in its order; the list that was there before where none differs.
 */
export function perEach<Thing, T>(
  computeAll: (things: readonly Thing[]) => readonly T[],
): (things: readonly Thing[]) => readonly T[] {
  return keptPerEach(computeAll, replacedValues);
}

/**
 * The same where a fixed count of numbers is computed from each thing, one after another.
 *
 * @param width how many.
 */
export function numbersPerEach<Thing>(
  width: number,
  computeAll: (things: readonly Thing[]) => Float64Array,
): (things: readonly Thing[]) => Float64Array {
  return keptPerEach(computeAll, (numbers, change, computed) => replacedNumbers(numbers, change, computed, width));
}

/** What differs is put into a copy of the values: `computed` at the places of the change. */
type Replace<Values> = (values: Values, change: Change, computed: Values) => Values;

function keptPerEach<Thing, Values>(
  computeAll: (things: readonly Thing[]) => Values,
  replace: Replace<Values>,
): (things: readonly Thing[]) => Values {
  let kept: { things: readonly Thing[]; values: Values }[] = [];
  return (things) => {
    const known = kept.find((entry) => entry.things === things);
    if (known) return known.values;
    let best: { values: Values; change: Change } | null = null;
    for (const entry of kept) {
      const most: number = (best?.change.places.length ?? things.length) - 1;
      const change = changeOf(entry.things, things, most);
      if (change) best = { values: entry.values, change };
    }
    const values = best ? valuesAfter(best.values, best.change, things) : computeAll(things);
    kept = [{ things, values }, ...kept].slice(0, mostEachLists);
    return values;
  };

  function valuesAfter(values: Values, change: Change, things: readonly Thing[]): Values {
    if (change.places.length === 0 && change.removed === 0) return values;
    return replace(values, change, computeAll(change.places.map((i) => things[i])));
  }
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

function replacedValues<T>(
  values: readonly T[],
  { from, removed, added, places }: Change,
  computed: readonly T[],
): readonly T[] {
  if (removed !== added) return values.slice(0, from).concat(computed, values.slice(from + removed));
  if (places.every((i, k) => values[i] === computed[k])) return values;
  const all = values.slice();
  for (const [k, i] of places.entries()) all[i] = computed[k];
  return all;
}

function replacedNumbers(
  numbers: Float64Array,
  { from, removed, added, places }: Change,
  computed: Float64Array,
  width: number,
): Float64Array {
  const all = new Float64Array(numbers.length + (added - removed) * width);
  if (removed === added) {
    all.set(numbers);
    for (const [k, i] of places.entries()) all.set(computed.subarray(k * width, (k + 1) * width), i * width);
    return all;
  }
  all.set(numbers.subarray(0, from * width));
  all.set(computed, from * width);
  all.set(numbers.subarray((from + removed) * width), (from + added) * width);
  return all;
}
