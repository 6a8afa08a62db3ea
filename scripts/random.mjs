/** mulberry32: a small generator of numbers from a seed (T. Ettinger, public domain). */
export function randomFrom(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

export const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** What of sorted numbers so many of a hundred lie below. */
export function percentile(numbers, percent) {
  const sorted = numbers.toSorted((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor((sorted.length * percent) / 100))] ?? 0;
}
