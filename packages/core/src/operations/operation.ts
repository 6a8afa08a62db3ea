export const operations = ['cut', 'score', 'engrave', 'guide', 'note'] as const;

/** What the machine does with a layer. Guide and Note are shown, never burnt. */
export type Operation = (typeof operations)[number];

export const operationNames: Record<Operation, string> = {
  cut: 'Cut',
  score: 'Score',
  engrave: 'Engrave',
  guide: 'Guide',
  note: 'Note',
};

/** The colours in which operations are shown, and which the house key reads. */
export const operationColours: Record<Operation, string> = {
  cut: '#D0481E',
  score: '#00806A',
  engrave: '#5B3FA0',
  guide: '#7A7F80',
  note: '#C77700',
};

/** What burns; guides and notes have no recipes. */
export const burntOperations: readonly Operation[] = ['cut', 'score', 'engrave'];

export function isBurnt(operation: Operation): boolean {
  return operation !== 'guide' && operation !== 'note';
}

/** How an operation burns: each way brings the settings that concern it (`settings/table.ts`). */
export type BurningWay =
  /** Whatever lights the beam. */
  | 'beam'
  /** Along lines. */
  | 'lines'
  /** Areas, row by row. */
  | 'areas'
  /** Through the stock. */
  | 'through';

/** The ways in which each operation burns; none where it is never burnt. */
export const waysOf: Readonly<Record<Operation, readonly BurningWay[]>> = {
  cut: ['beam', 'lines', 'through'],
  score: ['beam', 'lines'],
  engrave: ['beam', 'areas'],
  guide: [],
  note: [],
};
