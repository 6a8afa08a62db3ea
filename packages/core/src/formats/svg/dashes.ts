import type { Shape } from '../../document/shape.ts';
import { outlineOf } from '../../document/shapes.ts';
import { dashPath } from '../../geometry/paths/dash.ts';
import { meanScale } from '../../geometry/paths/matrix.ts';
import type { Path } from '../../geometry/paths/path.ts';
import type { Notes } from '../reading.ts';
import type { Context } from './context.ts';
import type { Declared } from './style.ts';
import { lengthInUserUnits, mmPerPx } from './values.ts';

/** The lengths of a stroke's dashes and gaps, in user units; null where it is solid, or there is none. */
function dashLengths(context: Context): readonly number[] | null {
  if (context.dashes.trim() === 'none' || context.stroke.trim() === 'none') return null;
  const lengths = context.dashes
    .trim()
    .split(/[\s,]+/)
    .map((text) => lengthInUserUnits(text, context, 'diagonal') ?? -1);
  return lengths.some((length) => length < 0) || !lengths.some((length) => length > 0) ? null : lengths;
}

/** The dashes of a shape's outline, in its own units; null where they come to a solid line, or cannot be made. */
function dashedPath(shape: Shape, lengths: readonly number[], own: Declared, context: Context): Path | null {
  const scale = own['vector-effect'] === 'non-scaling-stroke' ? mmPerPx / meanScale(context.matrix) : 1;
  return dashPath(
    outlineOf(shape),
    lengths.map((length) => length * scale),
    context.dashOffset * scale,
  );
}

/**
 * A dashed stroke as its dashes, where they are wanted; null where it is to be a solid line. Which of the two is noted.
 *
 * @param idOf gives the id of the item
 */
export function dashesOf(
  shape: Shape,
  own: Declared,
  context: Context,
  { wanted, idOf, notes }: { readonly wanted: boolean; readonly idOf: () => string; readonly notes: Notes },
): Shape | null {
  const lengths = dashLengths(context);
  if (!lengths) return null;
  if (!wanted) {
    notes.add('changed', 'dashes-as-solid', 'a dashed stroke is taken as a solid line', [idOf()]);
    return null;
  }
  const path = dashedPath(shape, lengths, own, context);
  if (!path) return null;
  notes.add('taken', 'dashes', 'a dashed stroke is taken as its dashes', [idOf()]);
  return { kind: 'path', path };
}
