import { useLive } from '../stores/live.ts';
import { runUnderWay, shareOf } from '../stores/run-news.ts';

/** The title of a place; while something burns, how far that is stands first. */
export function PageTitle({ children }: { children: string }) {
  const run = useLive((live) => {
    const under = runUnderWay(live);
    if (!under) return null;
    if (under.status === 'held') return 'held';
    const share = shareOf(under, live);
    return share === null ? 'burning' : `${Math.floor(share * 100)} %`;
  });
  return <title>{[run, children, 'Lambent'].filter((part) => part !== null).join(' · ')}</title>;
}
