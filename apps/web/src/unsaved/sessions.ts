/** The lock that says that a Bench is open; it goes with its tab, however that ends. */
const lockOf = (session: string) => `lambent bench ${session}`;

/** Says that a Bench is open, until it is released. Where the browser has no locks, nobody is told. */
export function holdSession(session: string): () => void {
  let release: () => void = () => {};
  const released = new Promise<void>((resolve) => {
    release = resolve;
  });
  navigator.locks?.request(lockOf(session), () => released).catch(() => {});
  return release;
}

/** The Benches that are open, in any tab. */
export async function openSessions(): Promise<Set<string>> {
  const { held = [] } = (await navigator.locks?.query()) ?? {};
  const prefix = lockOf('');
  return new Set(held.flatMap(({ name }) => (name?.startsWith(prefix) ? [name.slice(prefix.length)] : [])));
}
