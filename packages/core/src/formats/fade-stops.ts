import { channelsOf, colourOfChannels } from '../document/channels.ts';
import type { Fade, FadeStop } from '../document/fade.ts';
import type { Box } from '../geometry/paths/box.ts';
import { applyTo, type Matrix } from '../geometry/paths/matrix.ts';
import type { Notes } from './reading.ts';

/** A fill that repeats more often than this is as good as its mean. */
const mostRepeats = 60;

/** What lies before the first stop and after the last: the same on, the stops again, or there and back. */
export type Spread = 'pad' | 'repeat' | 'reflect';

/** How a fill fades, before anything is said of what lies beyond its stops. */
export type FadeLine = Exclude<Fade, { kind: 'even' }>;

/** A fade whose stops go on as far as its fill does. @returns null where they would go on too often */
export function spreadOver(fade: FadeLine, spread: Spread, box: Box, toFade: Matrix): FadeLine | null {
  if (spread === 'pad') return fade;
  const [first, last] = reachOf(fade, box, toFade);
  const count = last - first;
  if (!(count >= 1 && count <= mostRepeats)) return null;
  const stops = Array.from({ length: count }, (_, k) => first + k).flatMap((turn): FadeStop[] => {
    const isBack = spread === 'reflect' && turn % 2 !== 0;
    const own = isBack ? fade.stops.map((stop) => ({ ...stop, at: 1 - stop.at })).reverse() : fade.stops;
    return own.map((stop) => ({ ...stop, at: (turn - first + stop.at) / count }));
  });
  if (fade.kind === 'linear') return { ...fade, ...between(fade.from, fade.to, first, last), stops };
  const ends = between(fade.from, fade.to, first, last);
  const radiusAt = (t: number) => fade.from.radius + (fade.to.radius - fade.from.radius) * t;
  return {
    ...fade,
    from: { ...ends.from, radius: radiusAt(first) },
    to: { ...ends.to, radius: radiusAt(last) },
    stops,
  };
}

function between(from: { x: number; y: number }, to: { x: number; y: number }, first: number, last: number) {
  const placeAt = (t: number) => ({ x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t });
  return { from: placeAt(first), to: placeAt(last) };
}

/** The whole turns of its stops between which a fade fills a box. */
function reachOf(fade: FadeLine, { minX, minY, maxX, maxY }: Box, toFade: Matrix): [number, number] {
  const corners = [
    [minX, minY],
    [maxX, minY],
    [maxX, maxY],
    [minX, maxY],
  ].map(([x, y]) => applyTo(toFade, x, y));
  const { from, to } = fade;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (fade.kind === 'linear') {
    const square = dx * dx + dy * dy;
    const ts = corners.map(({ x, y }) => ((x - from.x) * dx + (y - from.y) * dy) / square);
    return [Math.floor(Math.min(...ts)), Math.ceil(Math.max(...ts))];
  }
  // Circles within each other: the outermost turn holds the furthest corner.
  const growth = fade.to.radius - fade.from.radius - Math.hypot(dx, dy);
  const furthest = Math.max(...corners.map(({ x, y }) => Math.hypot(x - from.x, y - from.y)));
  return [0, Math.max(1, Math.ceil((furthest - fade.from.radius) / growth))];
}

/** The fade, or nothing where all of it is one solid colour. */
export function fadeUnlessPlain(fade: FadeLine): FadeLine | undefined {
  const [first] = fade.stops;
  const isPlain = fade.stops.every(({ colour, opacity }) => colour === first.colour && opacity === 1);
  return isPlain ? undefined : fade;
}

/** Between two stops of which colour and opacity differ, what shows over white is no straight line: so many parts are. */
const partsOverWhite = 16;

/** Stops that can be seen through, as they look over white. */
export function stopsOverWhite(stops: readonly FadeStop[]): FadeStop[] {
  return stops.flatMap((to, i) => {
    const from = stops[i - 1];
    if (!from || to.at === from.at) return [overWhite(to)];
    const [a, b] = [channelsOf(from.colour), channelsOf(to.colour)];
    return Array.from({ length: partsOverWhite }, (_, k) => {
      const share = (k + 1) / partsOverWhite;
      const between = (low: number, high: number) => low + (high - low) * share;
      return overWhite({
        at: between(from.at, to.at),
        colour: colourOfChannels(a.map((channel, c) => between(channel, b[c]))),
        opacity: between(from.opacity, to.opacity),
      });
    });
  });
}

function overWhite({ at, colour, opacity }: FadeStop): FadeStop {
  const channels = channelsOf(colour).map((channel) => channel * opacity + 255 * (1 - opacity));
  return { at, colour: colourOfChannels(channels), opacity: 1 };
}

/** Says that a fill is kept as it fades. */
export function noteFade(notes: Notes, id: string): void {
  const said = 'a fill that fades or can be seen through is kept as it is: on Photo its greys burn';
  notes.add('taken', 'fading-fill', said, [id]);
}
