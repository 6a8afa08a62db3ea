import { DescribeJobDto, type JobCard, type JobSendingAnswer } from '@lambent/contracts';
import { isToBurn } from '@lambent/contracts/job-states';
import { atWork } from '@lambent/core/machine';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Copy, Trash2 } from 'lucide-react';
import { api, sentenceOf } from '../api.ts';
import type { GivenBlock } from '../day/use-day.ts';
import { type DayPlace, useGive } from '../day/use-give.ts';
import { JobMessages } from '../messages/job-messages.tsx';
import { JobQuotes } from '../quotes/job-quotes.tsx';
import { JobNewFile } from '../revisions/job-new-file.tsx';
import { JobSharing } from '../sharing/job-sharing.tsx';
import { dayAndTimeOf } from '../stores/dates.ts';
import { Button } from '../ui/button.tsx';
import { counted } from '../ui/counted.ts';
import { useCheckedForm, WordsInput } from '../ui/form.tsx';
import { useSent } from '../ui/use-sent.tsx';
import { t } from '../words/words.ts';
import { nameOfShow } from './job-states.ts';
import { useDeleteJob } from './use-delete-job.ts';

/** What a job is called, what it belongs to and until when it is wanted; its copy, its end, and the steps that it took. */
export default function JobPanel(props: { job: JobCard; block: GivenBlock | undefined; close: () => void }) {
  const { job, block, close } = props;
  const queries = useQueryClient();
  const deletion = useDeleteJob();
  const { title, project, wantedBy } = job;
  const { control, handleSubmit } = useCheckedForm(DescribeJobDto, { title, project, wantedBy: wantedBy ?? '' });
  const done = async () => {
    await queries.invalidateQueries({ queryKey: ['jobs'] });
    close();
  };
  const [keep, trouble] = useSent(async (what: DescribeJobDto) => {
    await api.describeJob(job.id, what);
    await done();
  });
  const [copy, copyTrouble] = useSent(async () => {
    await api.duplicateJob(job.id, t('{{title}}, copy', { title }));
    await done();
  });
  const sendings = useQuery({ queryKey: ['jobs', 'sending', job.id], queryFn: () => api.jobSending(job.id) });
  // What stands first is waited for, so that nothing moves away under the pointer.
  if (sendings.isLoading) return null;
  const [sending] = sendings.data ?? [];
  return (
    <>
      {sending && <Sending job={job} sending={sending} />}
      <form
        aria-label={t('About {{title}}', { title })}
        className="flex flex-col gap-2.5"
        onSubmit={handleSubmit(keep)}
      >
        <WordsInput control={control} name="title" label={t('Title')} maxLength={120} />
        <WordsInput control={control} name="project" label={t('Project')} maxLength={120} />
        <WordsInput control={control} name="wantedBy" label={t('Wanted by')} type="date" />
        {trouble}
        <Button type="submit" look="main">
          {t('Keep it')}
        </Button>
      </form>
      <JobSharing job={job} />
      {isToBurn(job.state) && !job.sharedOn && <Machines job={job} block={block} close={close} />}
      <div className="mt-3 flex gap-2 border-t border-line pt-3">
        <Button onClick={() => void copy(undefined)}>
          <Copy size={14} aria-hidden />
          {t('Duplicate')}
        </Button>
        <Button
          aria-label={t('Delete {{title}}', { title })}
          title={t('Delete this job; it can be taken back for 30 days')}
          className="ml-auto text-stop"
          disabled={deletion.isPending}
          onClick={() => deletion.mutate(job)}
        >
          <Trash2 size={14} aria-hidden />
          {t('Delete')}
        </Button>
      </div>
      {copyTrouble}
      <JobQuotes job={job} />
      <Steps job={job} />
    </>
  );
}

/** To which machine a job is given. */
function Machines({ job, block, close }: { job: JobCard; block: GivenBlock | undefined; close: () => void }) {
  const give = useGive();
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines }).data ?? [];
  const put = (place: DayPlace | null) => {
    close();
    void give(job, place, block);
  };
  return (
    <section aria-label={t('Its machine')} className="mt-3 flex flex-wrap gap-2 border-t border-line pt-3">
      {atWork(machines)
        .filter(({ id }) => id !== block?.machineId)
        .map(({ id, name }) => (
          <Button key={id} onClick={() => put({ machineId: id })}>
            {t('Give to {{name}}', { name })}
          </Button>
        ))}
      {block && <Button onClick={() => put(null)}>{t('Take it off the day')}</Button>}
    </section>
  );
}

/** What the sender of a job asked for, and what was written since. */
function Sending({ job, sending }: { job: JobCard; sending: JobSendingAnswer }) {
  const { name, at, copies, ownStock, notes, mail, isOpen, newFile } = sending;
  return (
    <div className="mb-3 border-b border-line pb-3">
      <section aria-label={t('What its sender asked for')}>
        <p className="text-quiet">{t('Sent in by {{name}}, {{at}}', { name, at: dayAndTimeOf(at) })}</p>
        {mail && (
          <p className="[overflow-wrap:anywhere]">
            <a href={`mailto:${mail}`} className="text-petrol underline">
              {mail}
            </a>
          </p>
        )}
        <p>{counted(copies, 'piece')}</p>
        {ownStock && <p className="[overflow-wrap:anywhere]">{t('Brings: {{ownStock}}', { ownStock })}</p>}
        {notes && <p className="whitespace-pre-wrap [overflow-wrap:anywhere]">{notes}</p>}
      </section>
      {newFile && <JobNewFile job={job} file={newFile} before={sending} />}
      <JobMessages job={job} canWrite={isOpen} />
    </div>
  );
}

function Steps({ job }: { job: JobCard }) {
  const steps = useQuery({ queryKey: ['jobs', 'steps', job.id], queryFn: () => api.jobSteps(job.id) });
  if (steps.isError) return <p className="mt-3 text-stop">{sentenceOf(steps.error)}</p>;
  if (!steps.data || steps.data.length === 0) return null;
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled with the keyboard
    <ol className="mt-3 max-h-40 overflow-y-auto border-t border-line pt-2" aria-label={t('Steps so far')} tabIndex={0}>
      {steps.data.map(({ id, state, at, by, with: shared }) => (
        <li key={id} className="py-0.5">
          <span className="font-semibold">{nameOfShow(state)}</span>{' '}
          <span className="text-quiet">
            {dayAndTimeOf(at)}
            {by && `, ${by}`}
            {shared && t(', with “{{title}}”', { title: shared.title })}
          </span>
        </li>
      ))}
    </ol>
  );
}
