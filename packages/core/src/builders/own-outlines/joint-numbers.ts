import { choice, count, edge, length, type NumbersOf } from '../fields.ts';
import { fitFields } from '../fit-fields.ts';

/** How two outlines are joined. */
export type JointKind = 'tabs' | 'flex' | 'bolt' | 'fingers';

/** A bolt and its nut, in mm: the hole that it drops through, and the nut across its flats and its height (ISO 273 medium, ISO 4032). */
interface BoltSize {
  readonly hole: number;
  readonly nutWide: number;
  readonly nutHigh: number;
}

const boltSize = (hole: number, nutWide: number, nutHigh: number): BoltSize => ({ hole, nutWide, nutHigh });

export const boltSizes = {
  M2: boltSize(2.4, 4, 1.6),
  'M2.5': boltSize(2.9, 5, 2),
  M3: boltSize(3.4, 5.5, 2.4),
  M4: boltSize(4.5, 7, 3.2),
  M5: boltSize(5.5, 8, 4.7),
  M6: boltSize(6.6, 10, 5.2),
  M8: boltSize(9, 13, 6.8),
} as const;
type BoltName = keyof typeof boltSizes;

const boltNames = Object.fromEntries(Object.keys(boltSizes).map((size) => [size, size])) as Record<BoltName, string>;

/** What a joint of two outlines is asked for. */
export const jointFields = {
  kind: choice<JointKind>('Joint', 'tabs', {
    tabs: 'Tabs in slots',
    flex: 'Tabs in slots that give',
    bolt: 'Tabs, and bolts with nuts',
    fingers: 'Fingers at a corner',
  }),
  first: edge('First edge', 0),
  second: edge('Second edge', 1),
  ...fitFields,
  tabs: count('Tabs', 2, [1, 100]),
  tabWidth: length('Tab width', 15, [1, 1000]),
  fingerWidth: length('Finger width', 14, [0.5, 500], 'What is aimed at: fingers are equally wide.'),
  inset: length('Slots from the edge', 6, [0, 3000], 'From the edge of the second part to the slots.'),
  shift: length('Shifted by', 0, [-3000, 3000], 'Along the edge of the second part, from its middle.'),
  narrower: length('Slots narrower by', 0.2, [0.01, 2], 'Their sides give way by so much.'),
  strip: length('Strip beside a slot', 1.5, [0.3, 20], 'What bends.'),
  room: length('Room beside a strip', 0.5, [0.1, 5], 'That it bends into.'),
  bolt: choice<BoltName>('Bolt', 'M3', boltNames),
  boltLength: length('Bolt length', 16, [4, 100], 'Without its head.'),
  nutPlay: length('Play of the nut', 0.2, [0, 1]),
} as const;

export type JointNumbers = NumbersOf<typeof jointFields>;

/** Which of them mean something, given the others. */
export function askedOfJoint({ kind, fit }: JointNumbers): (keyof typeof jointFields)[] {
  return (Object.keys(jointFields) as (keyof typeof jointFields)[]).filter((field) => {
    if (field === 'play') return fit === 'typed';
    if (field === 'fingerWidth') return kind === 'fingers';
    if (field === 'tabs' || field === 'tabWidth' || field === 'inset') return kind !== 'fingers';
    if (field === 'narrower' || field === 'strip' || field === 'room') return kind === 'flex';
    return (field !== 'bolt' && field !== 'boltLength' && field !== 'nutPlay') || kind === 'bolt';
  });
}
