import { drawnPaint } from '@lambent/core/colours';
import { type CardWish, cardLayerId, type Group, type Item, rectangleOf } from '@lambent/core/document';
import { addCard } from '@lambent/core/edits';
import { translation } from '@lambent/core/geometry';
import { labelOperation } from '@lambent/core/operations';
import { cardLayers, layCard, type Material, thicknessOf } from '@lambent/core/recipes';
import { toast } from 'sonner';
import { sentenceOf } from '../../api.ts';
import { t } from '../../words/words.ts';
import { showItems } from '../bed/showing.ts';
import { freeOnSheet, wordItems } from '../lay-on-sheet.ts';
import { newId } from '../new-id.ts';
import type { BenchActions } from '../state/bench-state.ts';
import { jobOf, machineOf } from '../state/document.ts';

/** Puts a test card into the job, its cells on layers of their own, its words scored. @returns whether it lies there */
export async function putCard(actions: BenchActions, wish: CardWish, material: Material): Promise<boolean> {
  const card = layCard(wish);
  const free = freeOnSheet(jobOf(actions.get()), machineOf(actions.get()), card.width, card.height);
  if (!free) {
    toast.error(t('There is no room for the card on the sheet. Make it smaller, or lay another sheet.'));
    return false;
  }
  try {
    const { key } = actions.get().prepared;
    const id = newId();
    const group: Group = { id: newId(), name: card.labels.at(-1)?.words ?? t('Test card'), parentId: null };
    const plain = { name: null, groupId: group.id, hidden: false, fillRule: 'nonzero' as const };
    const items: Item[] = [
      ...card.cells.map(
        ({ key: cell, x, y, fill }): Item => ({
          ...plain,
          ...(fill ? { paint: { stroke: null, strokeWidthMm: 0, fill } } : drawnPaint(key, wish.operation)),
          id: newId(),
          shape: rectangleOf({ minX: x, minY: y, maxX: x + wish.cellMm, maxY: y + wish.cellMm }),
          matrix: translation(free.x, free.y),
          pinned: cardLayerId(id, cell),
        }),
      ),
      ...(await wordItems(card.labels, free, {
        ...drawnPaint(key, labelOperation),
        groupId: group.id,
        pinned: cardLayerId(id, 'words'),
      })),
    ];
    const sheet = jobOf(actions.get()).sheets[0];
    const laid = {
      id,
      runId: newId(),
      wish,
      materialId: material.id,
      thicknessMm: sheet?.thicknessMm ?? thicknessOf(material),
      marks: {},
      best: null,
    };
    actions.edit(t('lay a test card'), (job) => addCard(job, laid, cardLayers(card, wish, id), items, group));
    actions.chooseRun(laid.runId);
    showItems(
      actions,
      items.map((item) => item.id),
    );
    actions.select([]);
    return true;
  } catch (error) {
    toast.error(sentenceOf(error));
    return false;
  }
}
