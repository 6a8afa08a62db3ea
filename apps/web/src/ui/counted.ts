/** How many there are of a thing, such as `1 job` or `3 jobs`. */
export function counted(count: number, thing: string): string {
  return `${count} ${thing}${count === 1 ? '' : 's'}`;
}
