import type { Figures } from './head.ts';

/** What it says of itself when it is asked: figures by their numbers, in docs/plain-language.md. */
export function figureLines(build: Figures & { readonly powerScale: number }): string[] {
  const { powerScale, travelSpeed, accelerations, width, height } = build;
  const figures = {
    30: powerScale,
    32: 1,
    110: travelSpeed * 60,
    111: travelSpeed * 60,
    120: accelerations[0],
    121: accelerations[1],
    130: width,
    131: height,
  };
  return Object.entries(figures).map(([number, value]) => `$${number}=${value}`);
}
