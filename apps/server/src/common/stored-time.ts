/** The database's way to write a time, in UTC, as ISO 8601. */
export function isoOf(stored: string): string {
  return new Date(`${stored.replace(' ', 'T').replace(/Z$/, '')}Z`).toISOString();
}

/** A time as the database keeps it, for what is compared with it. */
export function keptTime(time: string | number): string {
  return new Date(time).toISOString().replace('T', ' ').replace('Z', '');
}
