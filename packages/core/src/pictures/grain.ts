import type { Grain } from '../settings/grain.ts';
import type { LayerSettings } from '../settings/settings.ts';
import { blueNoise, noiseSize } from './blue-noise.ts';
import { sharesToAsk } from './burnt-greys.ts';
import { diffuse } from './diffusion.ts';
import type { DotGrid } from './dot-grid.ts';
import { dotSpot, lineSpot, screen } from './screens.ts';

/** How greys are made of dots. */
export type GrainSettings = Pick<
  LayerSettings,
  'grain' | 'diffusion' | 'screenPerCm' | 'screenAngle' | 'greyLevels' | 'burntGreys'
>;

/** What burns: for each dot a level from 0 for nothing to the top one for all. */
export interface GrainedDots {
  readonly levels: Uint8Array;
  readonly topLevel: number;
}

type Maker = (shares: Float32Array, grid: DotGrid, shown: Float32Array | null, settings: GrainSettings) => GrainedDots;

const whole = (levels: Uint8Array): GrainedDots => ({ levels, topLevel: 1 });

/** Every grain there is: a new one is a line here, and its word among the settings. */
const makers: Readonly<Record<Grain, Maker>> = {
  diffused: (shares, { columns }, shown, { diffusion }) => whole(diffuse(shares, columns, shown, diffusion)),
  'blue-noise': (shares, { columns }) => whole(byNoise(shares, columns)),
  dots: (shares, grid, _, settings) => whole(byScreen(shares, grid, settings, dotSpot)),
  lines: (shares, grid, _, settings) => whole(byScreen(shares, grid, settings, lineSpot)),
  threshold: (shares) => whole(Uint8Array.from(shares, (share) => (share >= 0.5 ? 1 : 0))),
  'true-greys': (shares, _, _shown, { greyLevels }) => inLevels(shares, greyLevels - 1),
};

/**
 * Makes greys of dots that burn or do not, or burn by levels. Greys that were measured come out as dark as is wanted.
 * @param shares how dark each dot is to be, 0 to 1, row by row
 * @param shown how much of each dot shows; null where all of all do
 */
export function grainOf(
  shares: Float32Array,
  grid: DotGrid,
  shown: Float32Array | null,
  settings: GrainSettings,
): GrainedDots {
  // A threshold makes no greys that could come out too dark.
  const asked = settings.grain === 'threshold' ? shares : sharesToAsk(shares, settings.burntGreys);
  return makers[settings.grain](asked, grid, shown, settings);
}

function byNoise(shares: Float32Array, columns: number): Uint8Array {
  const thresholds = blueNoise();
  const out = new Uint8Array(shares.length);
  for (let i = 0, row = 0; i < shares.length; row++) {
    const base = (row % noiseSize) * noiseSize;
    for (let column = 0; column < columns; column++, i++) {
      if (shares[i] > thresholds[base + (column % noiseSize)]) out[i] = 1;
    }
  }
  return out;
}

function byScreen(
  shares: Float32Array,
  { columns, dotMm, rowMm }: DotGrid,
  { screenPerCm, screenAngle }: GrainSettings,
  spot: typeof dotSpot,
): Uint8Array {
  const linesPerMm = screenPerCm / 10;
  return screen(shares, columns, dotMm, rowMm, { linesPerMm, degrees: screenAngle }, spot);
}

function inLevels(shares: Float32Array, topLevel: number): GrainedDots {
  const levels = new Uint8Array(shares.length);
  for (let i = 0; i < shares.length; i++) levels[i] = Math.round(shares[i] * topLevel);
  return { levels, topLevel };
}
