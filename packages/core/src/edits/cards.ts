import { type CardMark, cardOfLayer, type LaidCard } from '../document/card.ts';
import type { Group, Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Layer } from '../document/layer.ts';
import { firstRun, type Run } from '../document/run.ts';
import { addItems, removeItems } from './items.ts';

/** Lays a card in a job: its items, on layers of its own, and the run that burns them and nothing else. */
export function addCard(
  job: JobDocument,
  card: LaidCard,
  layers: readonly Layer[],
  items: readonly Item[],
  group: Group,
): JobDocument {
  const nth = job.cards.length === 0 ? '' : ` ${job.cards.length + 1}`;
  const laid = { ...job, cards: [...job.cards, card] };
  return addOwnRun(laid, { id: card.runId, name: `Test card${nth}` }, layers, items, group);
}

/** Adds items on layers of their own, which burn in a run of their own, and in no other. */
export function addOwnRun(
  job: JobDocument,
  { id, name }: Pick<Run, 'id' | 'name'>,
  layers: readonly Layer[],
  items: readonly Item[],
  group: Group,
): JobDocument {
  const own = layers.map((layer) => layer.id);
  const others = job.runs.map((run) => ({ ...run, off: [...run.off, ...own] }));
  const run: Run = { ...firstRun, id, name, only: items.map((item) => item.id) };
  return addItems({ ...job, layers: [...job.layers, ...layers], runs: [...others, run] }, items, [group]);
}

/** Takes a card off again, with its items, its layers, its run and what was read off it. */
export function removeCard(job: JobDocument, cardId: string): JobDocument {
  const runId = job.cards.find(({ id }) => id === cardId)?.runId;
  const runs = job.runs
    .filter(({ id }) => id !== runId)
    .map((run) => ({ ...run, off: run.off.filter((id) => cardOfLayer(id) !== cardId) }));
  const ids = new Set(itemsOfCard(job, cardId).map(({ id }) => id));
  return removeItems(
    {
      ...job,
      layers: job.layers.filter(({ id }) => cardOfLayer(id) !== cardId),
      runs: runs.length > 0 ? runs : [firstRun],
      cards: job.cards.filter(({ id }) => id !== cardId),
    },
    ids,
  );
}

/** What lies on the layers of a card. */
export function itemsOfCard({ drawing }: Pick<JobDocument, 'drawing'>, cardId: string): Item[] {
  return drawing.items.filter(({ pinned }) => pinned !== null && cardOfLayer(pinned) === cardId);
}

/** Says how cells came out; null for those of which nothing is said any more. */
export function markCells(job: JobDocument, cardId: string, marks: ReadonlyMap<string, CardMark | null>): JobDocument {
  return changeCard(job, cardId, (card) => {
    const next = new Map(Object.entries(card.marks));
    for (const [key, mark] of marks) {
      if (mark) next.set(key, mark);
      else next.delete(key);
    }
    // The best one is a good one.
    const best = card.best !== null && next.get(card.best) === 'good' ? card.best : null;
    return { ...card, marks: Object.fromEntries(next), best };
  });
}

/** Chooses the cell to be kept as the recipe: a good one, whatever was said of it. */
export function chooseBestCell(job: JobDocument, cardId: string, key: string | null): JobDocument {
  return changeCard(job, cardId, (card) => ({
    ...card,
    best: key,
    marks: key === null ? card.marks : { ...card.marks, [key]: 'good' },
  }));
}

/** Says how dark a cell came out, in per cent; undefined for as dark as a picture shows it. */
export function setCellDarkness(
  job: JobDocument,
  cardId: string,
  key: string,
  percent: number | undefined,
): JobDocument {
  return changeCard(job, cardId, ({ darks, ...card }) => {
    const { [key]: _, ...others } = darks ?? {};
    const next = percent === undefined ? others : { ...others, [key]: percent };
    return Object.keys(next).length > 0 ? { ...card, darks: next } : card;
  });
}

function changeCard(job: JobDocument, cardId: string, change: (card: LaidCard) => LaidCard): JobDocument {
  return { ...job, cards: job.cards.map((card) => (card.id === cardId ? change(card) : card)) };
}
