/** Puts a value behind those that a map holds under a key already. */
export function gather<Key, Value>(lists: Map<Key, Value[]>, key: Key, value: Value): void {
  const known = lists.get(key);
  if (known) known.push(value);
  else lists.set(key, [value]);
}

/** The things of a list by a key that each has, in their order; of a key that is null, none. */
export function gatherBy<Thing, Key>(things: Iterable<Thing>, keyOf: (thing: Thing) => Key | null): Map<Key, Thing[]> {
  const lists = new Map<Key, Thing[]>();
  for (const thing of things) {
    const key = keyOf(thing);
    if (key !== null) gather(lists, key, thing);
  }
  return lists;
}
