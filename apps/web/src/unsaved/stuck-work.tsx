import { useMutation } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { sentenceOf } from '../api.ts';
import { dayAndTimeOf } from '../stores/dates.ts';
import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';
import { keepAsJob, type StuckWork } from './send-unsaved.ts';
import { dropUnsaved } from './unsaved-store.ts';

/** Work that this browser kept and that could not be saved: what it is, why, and what can be done with it. */
export default function StuckWorkRows({ stuck, changed }: { stuck: readonly StuckWork[]; changed: () => void }) {
  return (
    <ul role="alert" aria-label={t('Work that is not saved')} className="flex shrink-0 flex-col">
      {stuck.map((stuckWork) => (
        <Row key={stuckWork.work.session} stuck={stuckWork} changed={changed} />
      ))}
    </ul>
  );
}

const reasons: Record<StuckWork['why'], string> = {
  'moved on': t('the job was changed elsewhere since'),
  gone: t('the job was deleted since'),
  refused: t('the server does not take it'),
  waiting: t('the server could not be reached; trying again'),
};

function Row({ stuck, changed }: { stuck: StuckWork; changed: () => void }) {
  const { work, why, sentence } = stuck;
  const navigate = useNavigate();
  const keep = useMutation({
    mutationFn: () => keepAsJob(stuck),
    onSuccess: (id) => {
      changed();
      void navigate(`/jobs/${id}/art`);
    },
    onError: (error) => toast.error(sentenceOf(error)),
  });
  const drop = useMutation({ mutationFn: () => dropUnsaved(work.session), onSuccess: changed });
  return (
    <li className="flex items-center gap-3 border-b border-stop/50 bg-stop-soft px-4 py-2">
      <p className="min-w-0 flex-1">
        <strong>
          {t('Work on “{{title}}” from {{at}} is kept in this browser and not saved:', {
            title: work.title,
            at: dayAndTimeOf(work.at),
          })}
        </strong>{' '}
        {reasons[why]}.
        <span className="block text-quiet">
          {why === 'refused' ? sentence : t('Last edit: {{edit}}.', { edit: work.edit })}
        </span>
      </p>
      {why !== 'waiting' && why !== 'refused' && (
        <Button look="main" disabled={keep.isPending} onClick={() => keep.mutate()}>
          {why === 'gone' ? t('Keep as a job of its own') : t('Keep both')}
        </Button>
      )}
      <Button onClick={() => void saveAsFile(stuck)}>{t('Save as a file')}</Button>
      {why !== 'waiting' && (
        <Button look="danger" disabled={drop.isPending} onClick={() => drop.mutate()}>
          {t('Delete')}
        </Button>
      )}
    </li>
  );
}

/** Lets the browser save the work as a file, as the command line reads it. */
async function saveAsFile({ work }: StuckWork): Promise<void> {
  const address = URL.createObjectURL(work.document);
  const link = document.createElement('a');
  link.href = address;
  link.download = `${work.title.replace(/[^\p{L}\p{N} ,._-]+/gu, ' ').trim() || 'job'}.json`;
  link.click();
  URL.revokeObjectURL(address);
}
