import { CreateJobDto } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { useMutation } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { asSize } from '../ui/figures.ts';
import { ChoiceInput, useCheckedForm, WordsInput } from '../ui/form.tsx';
import { Notice } from '../ui/notice.tsx';
import { t } from '../words/words.ts';

/** Makes a job: what it is called, and the machine that it is for. */
export default function NewJobForm({ machines }: { machines: readonly Machine[] }) {
  const navigate = useNavigate();
  const { control, handleSubmit, setFocus } = useCheckedForm(CreateJobDto, {
    title: t('Untitled job'),
    machineId: machines[0]?.id ?? '',
  });
  const isAsked = machines.length > 0;
  // The form comes after the panel that it stands in, which has looked for something to hand the focus to by then.
  useEffect(() => {
    if (isAsked) setFocus('title');
  }, [isAsked, setFocus]);
  const create = useMutation({
    mutationFn: ({ title, machineId }: CreateJobDto) => api.createJob(title, machineId),
    onSuccess: (job) => navigate(`/jobs/${job.id}/art`),
  });
  if (!isAsked) {
    return (
      <Notice level="notes" title={t('A job is made for a machine.')}>
        <p className="mb-2">
          {t('There is none yet: add one, with its bed and its speeds. A stand-in of it can run the job.')}
        </p>
        <Link to="/machines/new" className={buttonLook('main')}>
          {t('Add a machine')}
        </Link>
      </Notice>
    );
  }
  return (
    <form
      className="flex flex-col gap-3"
      aria-label={t('New job')}
      onSubmit={handleSubmit((job) => create.mutate(job))}
    >
      <WordsInput
        control={control}
        name="title"
        label={t('Title')}
        maxLength={120}
        onFocus={(event) => event.target.select()}
      />
      <div className="flex flex-col gap-1">
        <span className="text-quiet">{t('Machine')}</span>
        <ChoiceInput
          control={control}
          name="machineId"
          label={t('Machine')}
          bare
          options={machines.map(({ id, name, bedWidth, bedHeight }) => ({
            value: id,
            text: name,
            aside: asSize(bedWidth, bedHeight),
          }))}
        />
      </div>
      {create.isError && <Notice level="blocks">{sentenceOf(create.error)}</Notice>}
      <Button type="submit" look="main" disabled={create.isPending}>
        {t('Make the job')}
      </Button>
    </form>
  );
}
