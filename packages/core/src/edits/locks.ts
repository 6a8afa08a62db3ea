import type { Drawing, Item } from '../document/item.ts';

/** What may differ of an item that is locked: whether it is, and whether it is shown. */
const free: ReadonlySet<string> = new Set<keyof Item>(['locked', 'hidden']);

/**
 * The first item of a drawing that is locked, and would be changed or gone after an edit; null where an edit may be made.
 * Locking, unlocking, hiding and showing an item change nothing of it.
 */
export function lockedAgainst(before: Drawing, after: Drawing): Item | null {
  if (before.items === after.items) return null;
  const locked = before.items.filter((item) => item.locked);
  if (locked.length === 0) return null;
  const now = new Map(after.items.map((item) => [item.id, item]));
  return locked.find((item) => !isAsItWas(item, now.get(item.id))) ?? null;
}

function isAsItWas(item: Item, now: Item | undefined): boolean {
  if (item === now) return true;
  if (!now) return false;
  const names = new Set([...Object.keys(item), ...Object.keys(now)] as (keyof Item)[]);
  return [...names].every((name) => free.has(name) || isAlike(item[name], now[name]));
}

function isAlike(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}
