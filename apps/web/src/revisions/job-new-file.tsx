import type { JobCard, JobSendingAnswer, NewFileAnswer } from '@lambent/contracts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../api.ts';
import { dayAndTimeOf } from '../stores/dates.ts';
import { useWho } from '../stores/who.ts';
import { Button } from '../ui/button.tsx';
import { asLength, formatDuration, formatLength } from '../ui/figures.ts';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { DifferenceView } from './difference-view.tsx';

interface Props {
  readonly job: JobCard;
  readonly file: NewFileAnswer;
  /** The one before. */
  readonly before: Made;
}

/** A file as it was seen, and is to be made. */
type Made = Pick<JobSendingAnswer, 'look' | 'wish'>;

/** A new file that the sender of a job wants made instead: what it changes, and whether the workshop takes it. */
export function JobNewFile({ job, file, before }: Props) {
  const queries = useQueryClient();
  const materials = useQuery({ queryKey: ['materials'], queryFn: api.materials }).data ?? [];
  const stockOf = ({ wish }: Made) => {
    const material = materials.find(({ id }) => id === wish.materialId);
    return material ? `${material.name} ${asLength(material.thicknessMm)}` : wish.ownStock || '–';
  };
  const who = useWho();
  const what = { id: file.id, ...(who ? { by: who } : {}) };
  const done = () => queries.invalidateQueries({ queryKey: ['jobs'] });
  const [take, trouble] = useSent(async () => {
    await api.takeNewFile(job.id, what);
    await done();
  });
  const [leaveOut, leaveTrouble] = useSent(async () => {
    await api.leaveNewFileOut(job.id, what);
    await done();
  });
  return (
    <section aria-label={t('New file')} className="mt-3 rounded-lg border border-petrol p-3">
      <h4 className="mb-2 font-semibold [overflow-wrap:anywhere]">{t('New file: {{file}}', { file: file.file })}</h4>
      <DifferenceView
        difference={file.difference}
        picture={`/api/jobs/${job.id}/new-file/difference.svg?of=${file.id}`}
      />
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4">
        <dt className="text-quiet">{t('Sent')}</dt>
        <dd>{dayAndTimeOf(file.at)}</dd>
        <dt className="text-quiet">{t('Size')}</dt>
        <dd>{changeOf(before, file, sizeOf)}</dd>
        <dt className="text-quiet">{t('Time')}</dt>
        <dd>{changeOf(before, file, timeOf)}</dd>
        <dt className="text-quiet">{t('How many')}</dt>
        <dd>{changeOf(before, file, ({ wish }) => String(wish.copies))}</dd>
        <dt className="text-quiet">{t('Material')}</dt>
        <dd>{changeOf(before, file, stockOf)}</dd>
      </dl>
      <p className="mt-2 text-quiet">
        {t('Taken, it is the next version of this job. What was prepared before stays in the version before.')}
      </p>
      {trouble}
      {leaveTrouble}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button look="main" onClick={() => void take(undefined)}>
          {t('Take it')}
        </Button>
        <Button onClick={() => void leaveOut(undefined)}>{t('Leave it out')}</Button>
      </div>
    </section>
  );
}

/** What something was and is; once where that is the same. */
function changeOf(before: Made, now: Made, wordsOf: (made: Made) => string): string {
  const [was, is] = [wordsOf(before), wordsOf(now)];
  return was === is ? is : t('{{was}} → {{is}}', { was, is });
}

function sizeOf({ look: { widthMm, heightMm } }: Made): string {
  return t('{{width}} wide, {{height}} high', {
    width: formatLength(widthMm, 'mm'),
    height: formatLength(heightMm, 'mm'),
  });
}

function timeOf({ look: { seconds } }: Made): string {
  return seconds === null ? '–' : formatDuration(seconds);
}
