/** The id of the group that one copy of a job is in, on shared sheets. Both are counted from 0. */
export function groupOfPart(part: number, copy: number): string {
  return `part-${part + 1}-${copy + 1}`;
}

/** What an item, or a group, of a job is called on shared sheets. */
export function idInPart(part: number, copy: number, id: string): string {
  return `${groupOfPart(part, copy)}:${id}`;
}
