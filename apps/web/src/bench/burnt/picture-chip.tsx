import { dayAndTimeOf } from '../../stores/dates.ts';
import { Button } from '../../ui/button.tsx';
import { t } from '../../words/words.ts';
import { useBench, useBenchActions } from '../context.ts';
import { useRuns } from '../use-runs.ts';
import { useBurntPicture } from './burnt-picture.ts';

/** Says on the bed that it shows how a run came out, or what it burnt, what the colours mean, and how to leave that. */
export function PictureChip() {
  const actions = useBenchActions();
  const pictured = useBench((state) => state.pictured);
  const run = useRuns().runs.find(({ id }) => id === pictured);
  const shown = useBurntPicture(run?.hasPicture ? run.id : null);
  if (!run) return null;
  return (
    <div
      role="status"
      className="absolute left-1/2 top-8 z-10 flex -translate-x-1/2 items-center gap-3 whitespace-nowrap rounded-full border border-line bg-paper py-1 pl-4 pr-1 shadow-float"
    >
      {run.hasPicture ? (
        <span>
          <b>{t('How it came out')}</b>
          {', '}
          {dayAndTimeOf(run.startedAt)}
          {shown?.simulated && t(', simulated')}
          {t(': black is cut through, red scorched, brown burnt')}
        </span>
      ) : (
        <span>
          <b>{t('What it burnt')}</b>
          {t(', {{startedAt}}, by its program: brown is burnt, grey was left', {
            startedAt: dayAndTimeOf(run.startedAt),
          })}
        </span>
      )}
      <Button look="quiet" onClick={() => actions.showPictureOf(null)}>
        {t('Leave')}
      </Button>
    </div>
  );
}
