import type { Operation } from '../drawing/layer.ts';

export type { Operation } from '../drawing/layer.ts';

export const operations: readonly Operation[] = ['cut', 'score', 'engrave', 'guide', 'note'];

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

export function isBurnt(operation: Operation): boolean {
  return operation !== 'guide' && operation !== 'note';
}
