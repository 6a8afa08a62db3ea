import { type Operation, operationColours } from '@lambent/core/operations';

/** On the bed and in lists, an operation has a hue, a line pattern and a letter. */
export const operationLook: Record<Operation, { colour: string; dash: readonly number[]; letter: string }> = {
  cut: { colour: operationColours.cut, dash: [], letter: 'C' },
  score: { colour: operationColours.score, dash: [5, 3], letter: 'S' },
  engrave: { colour: operationColours.engrave, dash: [], letter: 'E' },
  guide: { colour: operationColours.guide, dash: [7, 3, 1.5, 3], letter: 'G' },
  note: { colour: operationColours.note, dash: [1.5, 3], letter: 'N' },
};
