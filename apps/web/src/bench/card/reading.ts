import { type CardMark, cardLayerId, type Item, type LaidCard } from '@lambent/core/document';
import { itemsOfCard } from '@lambent/core/edits';
import { prepareJob } from '@lambent/core/plan';
import { type CardCell, layCard, lookOf, markBy, type TestCard } from '@lambent/core/recipes';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { openJob } from '../../workers/work.ts';
import { type ShownPicture, useBurntPicture } from '../burnt/burnt-picture.ts';
import { useBench } from '../context.ts';
import { jobOf } from '../state/document.ts';
import { useRuns } from '../use-runs.ts';

/** When a card was burnt to its end, newest first. */
export function useBurns({ runId }: Pick<LaidCard, 'runId'>) {
  return useRuns().runs.filter(({ status, jobRunId }) => status === 'done' && jobRunId === runId);
}

/** The burn of the card that is looked at, its picture, and the others; the last burn where none was chosen. */
export function useReadBurn(laid: Pick<LaidCard, 'runId'>) {
  const chosen = useBench((state) => state.readCard?.runId ?? null);
  const burns = useBurns(laid);
  const run = burns.find(({ id }) => id === chosen) ?? burns.at(0);
  return { burns, run, shown: useBurntPicture(run?.hasPicture ? run.id : null) };
}

/** A card that is read: how it is laid out, and where its cells were burnt; where they lie, before they are. */
export interface ReadCard {
  readonly laid: LaidCard;
  readonly card: TestCard;
  readonly items: readonly Item[];
  /** The item of a cell; none where somebody took it away. */
  readonly itemOf: (cell: CardCell) => Item | undefined;
}

/** The card of the job that is being read. */
export function useReadCard(): ReadCard | null {
  const cardId = useBench((state) => state.readCard?.id ?? null);
  const laid = useBench((state) => jobOf(state).cards.find(({ id }) => id === cardId) ?? null);
  const drawing = useBench((state) => jobOf(state).drawing);
  const burnt = useBurntItems(laid);
  return useMemo(() => {
    if (!laid) return null;
    const items = burnt ?? itemsOfCard({ drawing }, laid.id);
    const byLayer = new Map(items.map((item) => [item.pinned, item]));
    return { laid, card: layCard(laid.wish), items, itemOf: ({ key }) => byLayer.get(cardLayerId(laid.id, key)) };
  }, [laid, drawing, burnt]);
}

/** A card's items where its burn put them: in the version that was sent, landed where that run landed. */
function useBurntItems(laid: LaidCard | null): readonly Item[] | null {
  const jobId = useBench((state) => state.jobId);
  const shop = useBench((state) => state.shop);
  const { run } = useReadBurn({ runId: laid?.runId ?? '' });
  const sent = useQuery({
    queryKey: ['version', jobId, run?.version],
    queryFn: async () => (await openJob(jobId, run?.version ?? 1)).document,
    enabled: run !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
  return useMemo(() => {
    if (!sent || !laid) return null;
    const { burntAt } = prepareJob(sent, shop, { runId: laid.runId });
    return itemsOfCard(sent, laid.id).map(burntAt);
  }, [sent, laid, shop]);
}

/** The mark for each cell that is there, by what a picture shows of it. */
export function marksShown({ laid, card, itemOf }: ReadCard, { picture }: ShownPicture): Map<string, CardMark> {
  const { operation } = laid.wish;
  return new Map(
    card.cells.flatMap((cell): [string, CardMark][] => {
      const item = itemOf(cell);
      return item ? [[cell.key, markBy(lookOf(picture, item, operation), operation)]] : [];
    }),
  );
}
