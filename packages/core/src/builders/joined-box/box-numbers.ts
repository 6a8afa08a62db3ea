import type { Vec3 } from '../assembly/space.ts';
import type { Stock } from '../builder.ts';
import { choice, count, length, type NumbersOf, yes } from '../fields.ts';
import { fitFields } from '../fit-fields.ts';
import type { Relief } from '../relief.ts';
import type { Below } from './below.ts';
import type { DividerEnds } from './dividers.ts';
import type { Handle } from './handles.ts';
import { type HingeSizes, hingeReach } from './hinge.ts';
import { type Lid, takenByWalls } from './lids.ts';

const mostMm = 3000;

/** What a joined box is asked for. */
export const boxFields = {
  measured: choice('Sizes are', 'inside', { inside: 'Inside', outside: 'Outside' }),
  width: length('Width', 154, [1, mostMm]),
  depth: length('Depth', 104, [1, mostMm]),
  height: length('Height', 64, [1, mostMm]),
  ...fitFields,
  lid: choice<Lid>('Lid', 'none', {
    none: 'None',
    closed: 'Closed',
    lifts: 'Lifts off',
    slides: 'Slides in',
    hinged: 'Hinged',
  }),
  lidPlay: length('Play of the lid', 0.4, [0, 5], 'How much narrower the lid is than its room, or free at its hinges.'),
  hinges: count('Hinges', 2, [1, 20]),
  pinHole: length('Hole for the pin', 3.2, [0.5, 20], 'For a screw, a nail or a stick that goes through each hinge.'),
  fingers: choice('Fingers', 'width', { width: 'By their width', count: 'By their count' }),
  fingerWidth: length('Finger width', 14, [0.5, 500], 'What is aimed at: fingers are even on every edge.'),
  fingerCount: count('Fingers on each edge', 5, [2, 200], 'Of both parts together.'),
  dividersAcross: count('Dividers across', 0, [0, 100]),
  dividersAlong: count('Dividers along', 0, [0, 100]),
  dividersLower: length('Dividers lower by', 0, [0, mostMm], 'How far they end below the height of the inside.'),
  dividerEnds: choice<DividerEnds>('Divider ends', 'tabs', {
    tabs: 'Tabs through the walls',
    slots: 'In slots, to lift out',
  }),
  below: choice<Below>('Below', 'none', { none: 'Nothing', feet: 'Feet', rim: 'A rim, to stack boxes' }),
  footSize: length('Side of a foot', 15, [1, 200]),
  rimPlay: length('Play of the rim', 0.4, [0, 5], 'How much narrower it is than the box that it goes into.'),
  handle: choice<Handle>('Handle holes', 'none', { none: 'None', sides: 'Left and right', front: 'In front' }),
  handleWidth: length('Handle width', 80, [5, 500]),
  handleHeight: length('Handle height', 25, [5, 200]),
  handleTop: length('Handle from the top', 12, [1, mostMm], 'From the top of the inside to the hole.'),
  relief: choice<Relief>('Inner corners', 'none', {
    none: 'Square',
    bone: 'With round relief',
    tee: 'With relief to a side',
  }),
  reliefWidth: length('Relief width', 1, [0.2, 20]),
  letters: yes('Score letters where parts meet', true),
} as const;

export type BoxNumbers = NumbersOf<typeof boxFields>;

/** How much larger than its inside a box is in each direction, with hinges and what is under it, in mm. */
export function takenOf(numbers: BoxNumbers, t: number): Vec3 {
  const [x, y, z] = takenByWalls(numbers.lid, t, numbers.lidPlay);
  const hinge = numbers.lid === 'hinged' ? hingeReach(hingeSizes(numbers), t) : 0;
  return [x, y + hinge, z + hinge + (numbers.below === 'none' ? 0 : t)];
}

/** What hinges are made by. */
export const hingeSizes = ({ hinges, pinHole, lidPlay }: BoxNumbers): HingeSizes => ({
  count: hinges,
  pinHole,
  gap: lidPlay,
});

/** The inside as typed, or what the outside leaves, in mm. */
export function insideOf(numbers: BoxNumbers, { thicknessMm }: Stock): Vec3 {
  const { measured, width, depth, height } = numbers;
  if (measured === 'inside') return [width, depth, height];
  const [x, y, z] = takenOf(numbers, thicknessMm);
  return [width - x, depth - y, height - z];
}
