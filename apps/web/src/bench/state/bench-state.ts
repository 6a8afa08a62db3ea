import { freeOfCharge, type Pricing } from '@lambent/core/recipes';
import { create } from 'zustand';
import type { ShopLists } from '../../workers/bench.worker.ts';
import type { OpenedJob } from '../../workers/opened-job.ts';
import { type ArrivingState, arrivingActions, nothingIncoming } from './arriving.ts';
import { type CardState, cardActions, noCard } from './card.ts';
import { type DocumentNews, type DocumentState, documentActions, openedDocument } from './document.ts';
import { emptyHand, type HandState, handActions, handAfterEdit } from './hand.ts';
import { nothingPlanned, type PlanState, planActions, planAfter } from './plan.ts';
import { firstView, type ViewState, viewActions } from './view.ts';

/** All that the Bench knows: six slices, each with actions of its own, which alone change it. */
export type BenchState = DocumentState & ViewState & HandState & PlanState & ArrivingState & CardState;

export type BenchStore = ReturnType<typeof createBenchStore>;

export function createBenchStore(opened: OpenedJob, shop: ShopLists, pricing: Pricing = freeOfCharge) {
  return create<BenchState>(() => ({
    ...openedDocument(opened, shop, pricing),
    ...firstView,
    ...emptyHand,
    ...nothingPlanned,
    ...nothingIncoming,
    ...noCard,
  }));
}

/** Everything that can be done to the Bench; a thin layer over core's pure functions. */
export function benchActions(store: BenchStore) {
  const { getState: get, setState } = store;
  const follow = (news: DocumentNews): Partial<BenchState> => ({
    ...(news.kind === 'edited' ? handAfterEdit(get(), news.document) : {}),
    ...planAfter(get(), news),
  });
  return {
    get,
    ...documentActions(get, (fields, news) => setState({ ...fields, ...(news && follow(news)) })),
    ...viewActions(setState),
    ...handActions(get, setState),
    ...planActions(setState),
    ...arrivingActions(get, setState),
    ...cardActions(get, setState),
  };
}

export type BenchActions = ReturnType<typeof benchActions>;
