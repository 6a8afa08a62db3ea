import type { Operation } from '@lambent/core';

/** On the bed and in lists, an operation has a hue, a line pattern and a letter. */
export const operationLook: Record<Operation, { colour: string; dash: readonly number[]; letter: string }> = {
  cut: { colour: '#D0481E', dash: [], letter: 'C' },
  score: { colour: '#00806A', dash: [5, 3], letter: 'S' },
  engrave: { colour: '#5B3FA0', dash: [], letter: 'E' },
  guide: { colour: '#7A7F80', dash: [7, 3, 1.5, 3], letter: 'G' },
  note: { colour: '#C77700', dash: [1.5, 3], letter: 'N' },
};
