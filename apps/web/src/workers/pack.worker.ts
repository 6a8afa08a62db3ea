import { type Packing, type PackWish, packed } from '@lambent/core/packing';

/** What the page asks for: it is looked for better and better packings, until so long has passed or the worker is ended. */
export interface PackAsk {
  readonly wish: PackWish;
  readonly seed: number;
  readonly seconds: number;
}

/** What is told: a better packing where there is one, how often was tried so far, and whether it is over. */
export interface PackNews {
  readonly packing: Packing | null;
  readonly tries: number;
  readonly isOver: boolean;
}

/** So often it is told how far it is where nothing better was found. */
const tellEveryMs = 250;

self.onmessage = ({ data: { wish, seed, seconds } }: MessageEvent<PackAsk>) => {
  const begun = performance.now();
  let [tries, toldMs] = [0, begun];
  const tell = (packing: Packing | null, isOver = false) =>
    self.postMessage({ packing, tries, isOver } satisfies PackNews);
  for (const packing of packed(wish, seed)) {
    tries++;
    const now = performance.now();
    if (packing || now - toldMs >= tellEveryMs) {
      toldMs = now;
      tell(packing);
    }
    if (now - begun >= seconds * 1000) break;
  }
  tell(null, true);
};
