import type { BuiltNote, Stock } from '../builder.ts';
import { choice, length, type NumbersOf, quantity, type Trouble, yes } from '../fields.ts';
import { fitFields } from '../fit-fields.ts';
import { roundedUp } from '../rounding.ts';
import { leastRows, linkLength, type SlitPattern, type SlitSizes, turnPerLink } from './slits.ts';

const mostMm = 2000;

/** What a bending panel is asked for. */
export const bendFields = {
  shape: choice('Makes', 'panel', { panel: 'A bent panel', box: 'A box with round corners' }),
  measured: choice('Sizes are', 'inside', { inside: 'Inside', outside: 'Outside' }),
  width: length('Width', 120, [5, mostMm]),
  depth: length('Depth', 100, [5, mostMm]),
  height: length('Height', 70, [5, mostMm]),
  closed: yes('A top as well', false),
  panelWidth: length('Panel width', 80, [5, mostMm], 'Along the bend.'),
  before: length('Straight before', 40, [0, mostMm]),
  after: length('Straight after', 40, [0, mostMm]),
  angle: quantity('Angle', 90, '°', [1, 350], 'How far it is bent.'),
  radius: length('Radius', 25, [0.5, mostMm], 'Of the bend, inside.'),
  pattern: choice<SlitPattern>('Slits', 'straight', { straight: 'Straight', wave: 'As waves', cross: 'As crosses' }),
  sizes: choice('Size of the slits', 'worked', { worked: 'Worked out from the bend', typed: 'Typed' }),
  slit: length('Slit length', 22, [1, mostMm], 'What is aimed at: slits are even over the panel.'),
  bridge: length('Bridge', 3, [0.3, 100], 'Between two slits of a row.'),
  spacing: length('Between rows', 3, [0.3, 100], 'What is aimed at: rows are even over the bend.'),
  give: quantity('How far fibres give', 2, '%', [0.1, 20], 'How far they may shear: 2 % suits plywood, 1 % acrylic.'),
  ...fitFields,
} as const;

export type BendNumbers = NumbersOf<typeof bendFields>;

/** A bend as it is cut, in mm. */
export interface Bend {
  /** Along the middle of the stock. */
  readonly lengthMm: number;
  readonly slits: SlitSizes;
  /** What it could be bent to, inside. */
  readonly leastRadiusMm: number;
}

/**
 * How a bend is slit, or why it cannot be.
 *
 * @param widthMm of what is bent, along the bend
 * @param angle in radians
 */
export function bendOf(
  numbers: BendNumbers,
  widthMm: number,
  angle: number,
  { thicknessMm: t }: Stock,
): Bend | Trouble {
  const { radius, give, sizes } = numbers;
  const typed = sizes === 'typed';
  // As strong as they are thick, where nothing else is said.
  const [bridge, aimed] = typed ? [numbers.bridge, numbers.spacing] : [t, t];
  const lengthMm = angle * (radius + t / 2);
  const rows = Math.max(2, Math.round(lengthMm / aimed));
  const spacing = lengthMm / rows;
  const turn = turnPerLink(aimed, t, give / 100);
  const longest = linkLength(widthMm, 1, bridge);
  if (longest <= 0) {
    const message = `${widthMm} mm are too narrow for slits with bridges of ${bridge} mm.`;
    return { field: typed ? 'bridge' : numbers.shape === 'box' ? 'height' : 'panelWidth', message, nearest: null };
  }
  const radiusFor = (link: number) => (leastRows(angle, link, turn) * aimed) / angle - t / 2;
  const slits = typed
    ? Math.max(1, Math.round(widthMm / (numbers.slit + bridge)))
    : Math.max(1, Math.floor(widthMm / Math.max(leastPeriod * t, 2 * (angle / (rows - 1) / turn + bridge))));
  const link = linkLength(widthMm, slits, bridge);
  if (link <= 0) {
    const message = `Slits of ${numbers.slit} mm with bridges of ${bridge} mm leave nothing that twists.`;
    return { field: 'slit', message, nearest: roundedUp(bridge * 1.1) };
  }
  const leastRadiusMm = radiusFor(typed ? link : longest);
  if (radius < leastRadiusMm - 1e-9) {
    const remedy = typed ? 'with these slits' : 'however long its slits are';
    const message = `A radius of ${radius} mm breaks the stock: its smallest is ${roundedUp(leastRadiusMm)} mm ${remedy}.`;
    const nearest = roundedUp(leastRadiusMm);
    return { field: 'radius', message, nearest: nearest <= mostMm ? nearest : null };
  }
  return { lengthMm, slits: { spacing, rows, slits, bridge }, leastRadiusMm };
}

/** A period of slits is so many times as long as the stock is thick, or longer: shorter ones are slow to cut, and weaker. */
const leastPeriod = 8;

/** What is said of how something bends. */
export function bendNotes(bend: Bend, slits: number, lengthMm: number): BuiltNote[] {
  return [
    { label: 'Length when flat', value: lengthMm, isLength: true },
    { label: 'Slits', value: slits, isLength: false },
    { label: 'Smallest radius', value: bend.leastRadiusMm, isLength: true },
  ];
}
