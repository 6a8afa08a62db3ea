import { create } from 'zustand';

const place = 'witness';

/** Who is at this screen, as was said last in this browser; empty where nobody has. */
const store = create<{ readonly name: string }>(() => ({ name: localStorage.getItem(place) ?? '' }));

/** Who is at this screen; empty where nobody has said. */
export function useWho(): string {
  return store(({ name }) => name);
}

/** Says who is at this screen from now on. */
export function setWho(name: string): void {
  const said = name.trim();
  localStorage.setItem(place, said);
  store.setState({ name: said });
}

/** Who is at this screen, for what does not draw. */
export function whoIsHere(): string {
  return store.getState().name;
}
