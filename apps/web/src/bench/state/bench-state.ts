import type { JobDocument } from '@lambent/core/document';
import { type History, lockItems } from '@lambent/core/edits';
import { freeOfCharge, type Pricing } from '@lambent/core/recipes';
import { createStore } from 'zustand/vanilla';
import type { ShopLists } from '../../workers/bench.worker.ts';
import type { OpenedJob } from '../../workers/opened-job.ts';
import { type ArrivingState, arrivingActions, nothingIncoming } from './arriving.ts';
import { type CardState, cardActions, noCard } from './card.ts';
import { type DocumentNews, type DocumentState, documentActions, jobOf, openedDocument } from './document.ts';
import { emptyHand, type HandState, handActions, handAfterEdit } from './hand.ts';
import { nothingPlanned, type PlanState, planActions, planAfter } from './plan.ts';
import { sayLocked, sayTooMuch } from './say-refused.ts';
import { spacedStore } from './spaced-store.ts';
import { firstView, type ViewState, viewActions } from './view.ts';

/** All that the Bench knows: six slices, each with actions of its own, which alone change it. */
export type BenchState = DocumentState & ViewState & HandState & PlanState & ArrivingState & CardState;

export type BenchStore = ReturnType<typeof createBenchStore>;

/** The state of the Bench for a job that was opened: all slices as they begin. */
export function createBenchStore(
  opened: OpenedJob,
  shop: ShopLists,
  pricing: Pricing = freeOfCharge,
  history?: History<JobDocument>,
) {
  const store = createStore<BenchState>(() => ({
    ...openedDocument(opened, shop, pricing, history),
    ...firstView,
    ...emptyHand,
    ...nothingPlanned,
    ...nothingIncoming,
    ...noCard,
  }));
  return spacedStore(store, (state) => jobOf(state).drawing.items.length > manyItems);
}

/** An edit of more items than this and the frame that shows it are two tasks of the page. */
const manyItems = 20_000;

/** Everything that can be done to the Bench; a thin layer over core's pure functions. */
export function benchActions(store: BenchStore) {
  const { getState: get, setState } = store;
  const follow = (news: DocumentNews): Partial<BenchState> => ({
    ...(news.kind === 'edited' ? handAfterEdit(get(), news.document) : {}),
    ...planAfter(get(), news),
  });
  const document = documentActions(get, (fields, news) => setState({ ...fields, ...(news && follow(news)) }), {
    locked: (item) =>
      sayLocked(item, () => document.edit('unlock', (job) => lockItems(job, new Set([item.id]), false))),
    tooMuch: sayTooMuch,
  });
  const hand = handActions(get, setState);
  return {
    get,
    ...document,
    undo(): void {
      document.undo();
      // What was undone is not done again with a copy.
      hand.forgetMove();
    },
    ...viewActions(get, setState),
    ...hand,
    ...planActions(setState),
    ...arrivingActions(get, setState),
    ...cardActions(get, setState),
  };
}

export type BenchActions = ReturnType<typeof benchActions>;
