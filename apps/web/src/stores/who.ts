import { create } from 'zustand';

const place = 'witness';

interface Who {
  readonly name: string;
  /** Takes the answer of whoever is being asked who they are; null where nobody is. */
  readonly asked: ((name: string | null) => void) | null;
}

/** Who is at this screen, as was said last in this browser; empty where nobody has. */
const store = create<Who>(() => ({ name: localStorage.getItem(place) ?? '', asked: null }));

/** Who is at this screen; empty where nobody has said. */
export function useWho(): string {
  return store(({ name }) => name);
}

/** Says who is at this screen from now on. */
export function setWho(name: string): void {
  const said = name.trim();
  localStorage.setItem(place, said);
  store.getState().asked?.(said || null);
  store.setState({ name: said, asked: null });
}

/** Whether somebody is being asked who they are. */
export function useIsWhoAsked(): boolean {
  return store(({ asked }) => asked !== null);
}

/** Nobody says who they are: what waited for it is not done. */
export function leaveWhoOpen(): void {
  store.getState().asked?.(null);
  store.setState({ asked: null });
}

/** Who is at this screen; asked where nobody has said. @returns null where nobody says */
export function askWho(): Promise<string | null> {
  const { name, asked } = store.getState();
  if (name !== '') return Promise.resolve(name);
  asked?.(null);
  return new Promise((resolve) => store.setState({ asked: resolve }));
}
