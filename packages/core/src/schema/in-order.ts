/** JSON as text that does not depend on the order in which the names of its records came. */
export function textInOrder(json: unknown): string {
  return JSON.stringify(json, (_, value: unknown) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
    return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
  });
}
