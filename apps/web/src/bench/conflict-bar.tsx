import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { dropUnsaved } from '../unsaved/unsaved-store.ts';
import { t } from '../words/words.ts';
import { documentBlob } from '../workers/document-blob.ts';
import { useBench, useBenchActions } from './context.ts';
import { jobOf } from './state/document.ts';

/** Says that the job was saved from another window, and lets the operator keep both. */
export function ConflictBar({ reload }: { reload: () => void }) {
  const actions = useBenchActions();
  const navigate = useNavigate();
  const save = useBench((state) => state.save);
  if (save.kind !== 'conflict' && save.kind !== 'deleted') return null;
  const isDeleted = save.kind === 'deleted';
  const keepBoth = async () => {
    const { jobId, title } = actions.get();
    try {
      const copy = await api.copyJob(
        jobId,
        t('{{title}}, second copy', { title: title.slice(0, 100) }),
        documentBlob(jobOf(actions.get())),
      );
      await dropUnsaved(actions.get().session);
      actions.dropUnsavedWork();
      navigate(`/jobs/${copy.id}/art`);
    } catch (error) {
      toast.error(sentenceOf(error));
    }
  };
  const openOther = async () => {
    await dropUnsaved(actions.get().session);
    actions.dropUnsavedWork();
    reload();
  };
  return (
    <div role="alert" className="flex items-center gap-3 border-b border-stop/50 bg-stop-soft px-4 py-2">
      <p className="flex-1">
        <strong>
          {t('This job was {{isDeleted}} in another window.', { isDeleted: isDeleted ? t('deleted') : t('changed') })}
        </strong>{' '}
        {t('Nothing was overwritten: what is here is not saved yet.')}
      </p>
      <Button look="main" onClick={() => void keepBoth()}>
        {isDeleted ? t('Save this as a job of its own') : t('Keep both: save this as a job of its own')}
      </Button>
      {!isDeleted && <Button onClick={() => void openOther()}>{t('Open the other, drop this')}</Button>}
    </div>
  );
}
