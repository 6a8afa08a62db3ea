import type { Shape } from '../../document/shape.ts';
import { outlineOf } from '../../document/shapes.ts';
import { dashPath } from '../../geometry/paths/dash.ts';
import { meanScale } from '../../geometry/paths/matrix.ts';
import type { Path } from '../../geometry/paths/path.ts';
import { lengthOf, subpathsOf } from '../../geometry/paths/segments.ts';
import type { Notes } from '../reading.ts';
import type { Context } from './context.ts';
import type { Declared } from './specified.ts';
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

/** How much longer a shape's outline is than its `pathLength` says; 1 where that says nothing. */
function lengthShare(shape: Shape, pathLength: string): number {
  const stated = Number(pathLength);
  if (!(stated > 0)) return 1;
  let length = 0;
  for (const { segments } of subpathsOf(outlineOf(shape))) for (const segment of segments) length += lengthOf(segment);
  return length > 0 ? length / stated : 1;
}

interface Asked {
  /** Whether dashes are wanted, and not a solid line. */
  readonly wanted: boolean;
  /** The length that the file gives its outline, by which dashes are measured. */
  readonly pathLength: string | undefined;
  /** Gives the id of the item. */
  readonly idOf: () => string;
  readonly notes: Notes;
}

/**
 * A dashed stroke as its dashes, where they are wanted; null where it is to be a solid line. Which of the two is noted.
 */
export function dashesOf(
  shape: Shape,
  own: Declared,
  context: Context,
  { wanted, pathLength, idOf, notes }: Asked,
): Shape | null {
  const said = dashLengths(context);
  if (!said) return null;
  if (!wanted) {
    notes.add('changed', 'dashes-as-solid', 'a dashed stroke is taken as a solid line', [idOf()]);
    return null;
  }
  const share = pathLength === undefined ? 1 : lengthShare(shape, pathLength);
  const lengths = said.map((length) => length * share);
  const path = dashedPath(shape, lengths, own, { ...context, dashOffset: context.dashOffset * share });
  if (!path) return null;
  notes.add('taken', 'dashes', 'a dashed stroke is taken as its dashes', [idOf()]);
  return { kind: 'path', path };
}
