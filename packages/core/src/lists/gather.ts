/** Puts a value behind those that a map holds under a key already. */
export function gather<Key, Value>(lists: Map<Key, Value[]>, key: Key, value: Value): void {
  const known = lists.get(key);
  if (known) known.push(value);
  else lists.set(key, [value]);
}

/** The things of a list by a key that each has, in their order; of a key that is null, none. */
export function gatherBy<Thing, Key>(things: Iterable<Thing>, keyOf: (thing: Thing) => Key | null): Map<Key, Thing[]> {
  const lists = new Map<Key, Thing[]>();
  let [lastKey, list]: [Key | null, Thing[]] = [null, []];
  for (const thing of things) {
    const key = keyOf(thing);
    if (key === null) continue;
    // Things of one key mostly follow each other.
    if (key !== lastKey) {
      list = lists.get(key) ?? [];
      lists.set(key, list);
      lastKey = key;
    }
    list.push(thing);
  }
  return lists;
}
