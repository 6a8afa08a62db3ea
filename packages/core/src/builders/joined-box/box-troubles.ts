import type { Vec3 } from '../assembly/space.ts';
import type { Stock } from '../builder.ts';
import type { Trouble } from '../fields.ts';
import { rounded, roundedDown, roundedUp } from '../rounding.ts';
import { evenMiddles } from '../strips.ts';
import { type BoxNumbers, boxFields, hingeSizes, takenOf } from './box-numbers.ts';
import { hingeLimits } from './hinge.ts';

/** What is wrong with numbers that are each within their limits. */
export function troublesWith(numbers: BoxNumbers, inside: Vec3, { thicknessMm: t }: Stock): Trouble[] {
  const { fingers, fingerWidth, fingerCount, dividersAcross, dividersAlong, dividersLower } = numbers;
  const troubles: Trouble[] = [];
  const sizes = ['width', 'depth', 'height'] as const;
  const taken = takenOf(numbers, t);
  sizes.forEach((field, i) => {
    if (inside[i] >= 1) return;
    const message = `${boxFields[field].label} is ${numbers[field]} mm outside, and the stock takes ${rounded(taken[i])} mm of it: nothing is left inside.`;
    troubles.push({ field, message, nearest: roundedUp(taken[i] + 1) });
  });
  if (troubles.length > 0) return troubles;
  if (fingers === 'width' && fingerWidth < t) {
    const message = `Fingers of ${fingerWidth} mm are thinner than the stock, which is ${rounded(t)} mm: they break.`;
    troubles.push({ field: 'fingerWidth', message, nearest: t });
  }
  if (fingers === 'count') {
    const shortest = Math.min(...inside);
    const most = Math.floor(shortest / t + 1e-9);
    if (fingerCount > most) {
      const message = `${fingerCount} fingers on an edge of ${rounded(shortest)} mm are thinner than the stock, which is ${rounded(t)} mm: they break.`;
      troubles.push({ field: 'fingerCount', message, nearest: most >= 2 ? most : null });
    }
  }
  const rows = [
    ['dividersAcross', dividersAcross, inside[1]],
    ['dividersAlong', dividersAlong, inside[0]],
  ] as const;
  for (const [field, wanted, room] of rows) {
    const most = Math.max(0, Math.floor((room - t) / (2 * t) + 1e-9));
    if (wanted <= most) continue;
    const message = `${wanted} dividers do not fit into ${rounded(room)} mm: each takes ${rounded(t)} mm, and as much must be free beside it.`;
    troubles.push({ field, message, nearest: most });
  }
  const least = 4 * t;
  if (dividersAcross + dividersAlong > 0 && inside[2] - dividersLower < least) {
    const message = `Dividers of ${rounded(inside[2] - dividersLower)} mm are too low for tabs; they take ${rounded(least)} mm.`;
    const nearest = inside[2] >= least ? roundedDown(inside[2] - least) : null;
    troubles.push({ field: 'dividersLower', message, nearest });
  }
  return [...troubles, ...troublesWithHinges(numbers, inside, t), ...troublesWithExtras(numbers, inside, t)];
}

function troublesWithHinges(numbers: BoxNumbers, [w, d, h]: Vec3, t: number): Trouble[] {
  if (numbers.lid !== 'hinged') return [];
  const { leastDepth, leastHeight, most } = hingeLimits(hingeSizes(numbers), w, t);
  const short = [
    ['deep', d, leastDepth],
    ['high', h, leastHeight],
  ] as const;
  for (const [word, is, least] of short) {
    if (is >= least) continue;
    const message = `A hinge needs a box that is ${rounded(least)} mm ${word} inside, and this one is ${rounded(is)} mm.`;
    return [{ field: 'lid', message, nearest: 'lifts' }];
  }
  if (numbers.hinges <= most) return [];
  const message = `${numbers.hinges} hinges do not fit beside each other: there is room for ${most}.`;
  return [{ field: 'hinges', message, nearest: most >= 1 ? most : null }];
}

/** Whether all parts are nominal, and share their edges: nothing has play then. */
const isNominal = ({ fit, play }: BoxNumbers) => fit === 'typed' && play === 0;

function troublesWithExtras(numbers: BoxNumbers, [w, d, h]: Vec3, t: number): Trouble[] {
  const { lid, lidPlay, below, footSize, handle, handleWidth, handleHeight, handleTop, dividerEnds } = numbers;
  const { dividersAcross, dividersAlong } = numbers;
  const troubles: Trouble[] = [];
  if (lid !== 'none' && lid !== 'closed' && lidPlay === 0 && !isNominal(numbers)) {
    const message = 'A lid without play does not move: give it some, or type 0 for the play of all joints.';
    troubles.push({ field: 'lidPlay', message, nearest: boxFields.lidPlay.usual });
  }
  if (below === 'rim' && lid !== 'none') {
    const message = 'A rim goes into the box below, which must be open: take no lid, or feet.';
    troubles.push({ field: 'below', message, nearest: 'feet' });
  }
  const widest = Math.min(w, d) / 2;
  if (below === 'feet' && footSize > widest) {
    const message = `Feet of ${footSize} mm meet: they have ${rounded(widest)} mm each.`;
    troubles.push({ field: 'footSize', message, nearest: roundedDown(widest) });
  }
  if (dividerEnds === 'slots' && lid !== 'none' && dividersAcross + dividersAlong > 0) {
    const message = 'Dividers lift out of slots only where the box has no lid.';
    troubles.push({ field: 'dividerEnds', message, nearest: 'tabs' });
  }
  if (handle === 'none') return troubles;
  const [side, field] = handle === 'sides' ? ([d, 'dividersAcross'] as const) : ([w, 'dividersAlong'] as const);
  if (handleWidth > side - 2 * t) {
    const message = `A hole of ${handleWidth} mm does not leave ${t} mm at its ends: the wall is ${rounded(side)} mm inside.`;
    const nearest = roundedDown(side - 2 * t);
    troubles.push({ field: 'handleWidth', message, nearest: nearest >= 5 ? nearest : null });
  }
  if (handleTop < t) {
    const message = `${handleTop} mm of wall above the hole break: they are less than the stock is thick.`;
    troubles.push({ field: 'handleTop', message, nearest: t });
  } else if (handleTop + handleHeight > h - t) {
    const message = `The hole ends ${rounded(handleTop + handleHeight)} mm below the top, and the inside is ${rounded(h)} mm high.`;
    const nearest = roundedDown(h - t - handleTop);
    troubles.push({ field: 'handleHeight', message, nearest: nearest >= 5 ? nearest : null });
  }
  const count = numbers[field];
  const top = h - numbers.dividersLower;
  const isInWay = evenMiddles(0, side, count, t).some((middle) => Math.abs(middle - side / 2) < handleWidth / 2 + t);
  if (isInWay && top > h - handleTop - handleHeight) {
    const message =
      'A divider stands in the handle hole: take another number of dividers, or lower ones, or a smaller hole.';
    troubles.push({ field: 'handle', message, nearest: 'none' });
  }
  return troubles;
}
