import { isEmpty, scaling } from '@lambent/core/geometry';
import { t } from '../words/words.ts';
import { addCopies } from './commands.ts';
import type { BenchActions } from './state/bench-state.ts';
import { selectionBox } from './state/hand.ts';

/** How far apart a thing and its mirrored copy lie, in mm. */
const gapMm = 5;

/** Puts a mirrored copy of the selection beside it, left and right swapped, or below it, up and down swapped. */
export function mirroredCopy(actions: BenchActions, where: 'beside' | 'below'): void {
  const box = selectionBox(actions.get());
  if (isEmpty(box)) return;
  const line = { x: box.maxX + gapMm / 2, y: box.maxY + gapMm / 2 };
  const map = where === 'beside' ? scaling(-1, 1, line) : scaling(1, -1, line);
  addCopies(actions, t('mirrored copy'), [map]);
}
