import { beforeSend, noteText } from '@lambent/core/checks';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useInSentence } from '../../../stores/numbers.ts';
import { t } from '../../../words/words.ts';
import { useBench } from '../../context.ts';
import { findingsOf } from '../../state/plan.ts';
import { Part } from '../drawer.tsx';

/** Notes longer than this are cut off. */
const longestNote = 120;

/** What whoever burns the job should know before it is sent: notes on the bed, what stays behind, what was accepted. */
export function BeforeSend() {
  const inSentence = useInSentence();
  const jobId = useBench((state) => state.jobId);
  const prepared = useBench((state) => state.prepared);
  const findings = useBench(findingsOf);
  const { notes, parked, undecided, accepted } = useMemo(
    () => beforeSend(prepared, findings ?? []),
    [prepared, findings],
  );
  // What was decided and is accepted needs no further word here.
  const fine = accepted.filter(({ code }) => code !== 'decided');
  if (!parked && notes.length + undecided.length + fine.length === 0) return null;
  return (
    <Part title={t('Before you send')}>
      <ul
        className="empty:hidden flex flex-col gap-1.5 rounded-[10px] border border-line bg-raised p-3"
        data-testid="before-send"
      >
        {notes.map((item) => (
          <li key={item.id} className="[overflow-wrap:anywhere]">
            <span className="font-semibold">{t('Note:')}</span> {noteText(item).slice(0, longestNote)}
          </li>
        ))}
        {parked && <li>{parked}</li>}
        {undecided.length > 0 && (
          <li>
            {t(
              undecided.length === 1
                ? '1 thing was decided for you, and is not accepted yet.'
                : '{{undecided}} things were decided for you, and are not accepted yet.',
              { undecided: undecided.length },
            )}{' '}
            <Link to={`/jobs/${jobId}/check`} className="font-semibold text-petrol hover:underline">
              {t(undecided.length === 1 ? 'See it' : 'See them')}
            </Link>
          </li>
        )}
        {fine.map((finding) => (
          <li key={finding.message} className="[overflow-wrap:anywhere]">
            <span className="font-semibold">{t('Accepted:')}</span> {inSentence(finding.message)}{' '}
            <span className="text-quiet">{finding.accepted}</span>
          </li>
        ))}
      </ul>
    </Part>
  );
}
