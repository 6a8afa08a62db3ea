import type { StraightEdge } from '@lambent/core/builders';
import type { Matrix } from '@lambent/core/geometry';
import type { LengthUnit } from '@lambent/core/units';
import { formatLength } from '../../../../ui/figures.ts';

/** How an edge is called in a list: its number, the side of its outline that it is on as that lies on the bed, and its length. */
export function edgeWords({ number, inward, lengthMm }: StraightEdge, [a, b, c, d]: Matrix, unit: LengthUnit) {
  const [x, y] = [a * inward.x + c * inward.y, b * inward.x + d * inward.y];
  const sides = [
    ['top', y],
    ['bottom', -y],
    ['left', x],
    ['right', -x],
  ] as const;
  const side = sides.find(([, share]) => share > 0.999)?.[0] ?? 'sloped';
  return { text: `${number}, ${side}`, aside: formatLength(lengthMm, unit) };
}
