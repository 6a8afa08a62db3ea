import type { Tone } from '../document/tone.ts';
import { blurred } from './blur.ts';
import { curveThrough, mapShares } from './curve.ts';
import type { DotRaster } from './dots.ts';
import { raiseLocalContrast } from './local-contrast.ts';

/** How far sharpening reaches where nothing is said, in mm. */
const usualSharpenMm = 0.3;

/** How far sharpening reaches from an edge, in mm; 0 where nothing is sharpened. */
export function sharpenReach({ sharpen, sharpenMm }: Tone): number {
  return sharpen ? (sharpenMm ?? usualSharpenMm) : 0;
}

/**
 * The share of each dot of a picture that is to burn, 0 to 1, after what was decided of its greys: inverted, local
 * contrast, curve, brightness and contrast, sharpened by an unsharp mask. What does not show does not burn.
 *
 * @param dots their greys are changed: nobody needs them afterwards
 */
export function sharesToBurn({ columns, rows, dotMm, rowMm, greys, shown }: DotRaster, tone: Tone): Float32Array {
  if (tone.inverted) for (let i = 0; i < greys.length; i++) greys[i] = 1 - greys[i];
  raiseLocalContrast({ columns, rows, values: greys, shown }, (tone.localContrast ?? 0) / 100);
  const change = greyChange(tone);
  const toBurn = (grey: number) => (tone.lighter ? grey : 1 - grey);
  if (change) mapShares(greys, tone.sharpen ? change : (grey) => toBurn(change(grey)));
  if (tone.sharpen) {
    const reach = sharpenReach(tone);
    const soft = blurred({ columns, rows, values: greys, shown }, reach / dotMm, reach / rowMm);
    const amount = tone.sharpen / 100;
    for (let i = 0; i < greys.length; i++) {
      greys[i] = Math.min(1, Math.max(0, greys[i] + amount * (greys[i] - soft[i])));
    }
  }
  if (tone.sharpen || !change) for (let i = 0; i < greys.length; i++) greys[i] = toBurn(greys[i]);
  if (shown) for (let i = 0; i < greys.length; i++) greys[i] *= shown[i];
  return greys;
}

/** What curve, brightness and contrast make of a grey; null where that is the same. */
function greyChange({ curve, brightness = 0, contrast = 0 }: Tone): ((grey: number) => number) | null {
  if (!curve?.length && brightness === 0 && contrast === 0) return null;
  const through = curveThrough(curve ?? []);
  const steep = contrast < 0 ? 1 + contrast / 100 : 1 / (1 - contrast / 101);
  return (grey) => Math.min(1, Math.max(0, (through(grey) - 0.5) * steep + 0.5 + brightness / 200));
}
