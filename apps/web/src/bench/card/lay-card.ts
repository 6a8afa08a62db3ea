import {
  addCard,
  type Box,
  boundsOf,
  type CardWish,
  cardLayerId,
  cardLayers,
  cardWordsMm,
  drawnPaint,
  freePlace,
  type Group,
  type Item,
  layCard,
  type Material,
  rectangleOf,
  translation,
  usualText,
} from '@lambent/core';
import { toast } from 'sonner';
import { sentenceOf } from '../../api.ts';
import { fileWorker } from '../../workers/bench.ts';
import { roomOn } from '../drawers/test-pieces-part.tsx';
import { type BenchActions, jobOf, machineOf } from '../store.ts';
import { newId } from '../tools/draw.ts';
import { showSelection } from '../use-shortcuts.ts';

/** Where a card of a size has room on the first sheet, clear of what lies there; null where nowhere is. */
export function freeForCard(actions: BenchActions, width: number, height: number): { x: number; y: number } | null {
  const job = jobOf(actions.get());
  const sheet = job.sheets[0];
  if (!sheet) return null;
  const taken: Box[] = job.drawing.items.filter(({ hidden }) => !hidden).map(boundsOf);
  return freePlace(roomOn(sheet, machineOf(actions.get())), width, height, taken, 3);
}

/** Puts a test card into the job, its cells on layers of their own, its words scored. @returns whether it lies there */
export async function putCard(actions: BenchActions, wish: CardWish, material: Material): Promise<boolean> {
  const card = layCard(wish);
  const free = freeForCard(actions, card.width, card.height);
  if (!free) {
    toast.error('There is no room for the card on the sheet. Make it smaller, or lay another sheet.');
    return false;
  }
  const setting = { ...usualText, family: 'Single line', height: cardWordsMm };
  const settings = card.labels.map(({ words, align }) => ({
    ...setting,
    words,
    align: align === 'right' ? ('right' as const) : ('centre' as const),
  }));
  try {
    const paths = await Promise.all(settings.map((one) => fileWorker().setText(one)));
    const { key } = actions.get().prepared;
    const id = newId();
    const group: Group = { id: newId(), name: card.labels.at(-1)?.words ?? 'Test card', parentId: null };
    const plain = { name: null, groupId: group.id, hidden: false, fillRule: 'nonzero' as const };
    const items: Item[] = [
      ...card.cells.map(
        ({ key: cell, x, y }): Item => ({
          ...plain,
          ...drawnPaint(key, wish.operation),
          id: newId(),
          shape: rectangleOf({ minX: x, minY: y, maxX: x + wish.cellMm, maxY: y + wish.cellMm }),
          matrix: translation(free.x, free.y),
          pinned: cardLayerId(id, cell),
        }),
      ),
      ...card.labels.map(
        ({ x, y }, i): Item => ({
          ...plain,
          ...drawnPaint(key, 'score'),
          id: newId(),
          shape: { kind: 'text', text: settings[i], path: paths[i].path },
          matrix: translation(free.x + x, free.y + y),
          pinned: cardLayerId(id, 'words'),
        }),
      ),
    ];
    const sheet = jobOf(actions.get()).sheets[0];
    const laid = {
      id,
      runId: newId(),
      wish,
      materialId: material.id,
      thicknessMm: sheet?.thicknessMm ?? material.measuredMm ?? material.thicknessMm,
      marks: {},
      best: null,
    };
    actions.edit('lay a test card', (job) => addCard(job, laid, cardLayers(card, wish, id), items, group));
    actions.chooseRun(laid.runId);
    actions.select(items.map((item) => item.id));
    showSelection(actions);
    actions.select([]);
    return true;
  } catch (error) {
    toast.error(sentenceOf(error));
    return false;
  }
}
