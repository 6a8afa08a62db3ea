import { sentenceOf } from '../../../../api.ts';
import { Notice } from '../../../../ui/notice.tsx';
import { t } from '../../../../words/words.ts';
import { useRuns } from '../../../use-runs.ts';
import { Part } from '../../drawer.tsx';
import { RunRow } from './run-row.tsx';

/** What was burnt of this job. */
export function RecordPart() {
  const { runs, error } = useRuns();
  return (
    <Part title={t('Record')}>
      {error && <Notice level="blocks">{sentenceOf(error)}</Notice>}
      {runs.length === 0 && !error && <p className="text-quiet">{t('This job has not been burnt yet.')}</p>}
      <ul className="flex flex-col gap-2">
        {runs.map((run) => (
          <RunRow key={run.id} run={run} />
        ))}
      </ul>
    </Part>
  );
}
