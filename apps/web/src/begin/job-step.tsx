import { atWork } from '@lambent/core/machine';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { useSettings } from '../shop/use-settings.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { asLength } from '../ui/figures.ts';
import { Labelled } from '../ui/labelled.tsx';
import { Notice } from '../ui/notice.tsx';
import { Words } from '../ui/words.tsx';
import { t } from '../words/words.ts';
import type { Beginning, FirstStep } from './first-steps.ts';
import { StepFrame } from './step-frame.tsx';

/** The first job: what it is called, its machine, its material; then the Bench. */
export function JobStep({ machines, materials, back }: Beginning & { back: (step: FirstStep) => void }) {
  const navigate = useNavigate();
  const { settle } = useSettings();
  const offered = atWork(machines);
  const stock = materials.filter(({ forbidden, archived }) => !forbidden && !archived);
  const [title, setTitle] = useState(t('First job'));
  const [machineId, setMachine] = useState(offered[0]?.id ?? null);
  const [materialId, setMaterial] = useState(stock[0]?.id ?? null);
  const make = useMutation({
    mutationFn: () => api.createJob(title.trim(), machineId as string, materialId ?? undefined),
    onSuccess: async (job) => {
      await settle({ isSetUp: true });
      navigate(`/jobs/${job.id}/art`);
    },
  });
  if (offered.length === 0) {
    return (
      <Notice level="notes" title={t('A job is made for a machine.')}>
        <p className="mb-2">{t('There is none yet. Its stand-in can run the job.')}</p>
        <Button onClick={() => back('machine')}>{t('Back to the machine')}</Button>
      </Notice>
    );
  }
  return (
    <StepFrame
      title={t('The first job')}
      about={t(
        'It opens on the Bench: bring a drawing in or draw, and go down the stages on the left, from Art to Burn. Where a material has no recipe yet, the stage Recipe offers a test card, or you type power and speed.',
      )}
      finish={{
        text: make.isPending ? t('Making it…') : t('Make the job'),
        isReady: title.trim() !== '' && !make.isPending,
        run: () => make.mutate(),
      }}
      skip={() => back('shop')}
      skipText={t('Back to the first step')}
    >
      <div className="grid max-w-[640px] grid-cols-1 gap-x-4 gap-y-3 sm:grid-cols-3">
        <Words label={t('Title')} value={title} set={setTitle} most={120} />
        <Labelled label={t('Machine')}>
          <Choice
            label={t('Machine')}
            look="slim"
            value={machineId}
            options={offered.map(({ id, name }) => ({ value: id, text: name }))}
            choose={setMachine}
          />
        </Labelled>
        <Labelled label={t('Material')}>
          <Choice
            label={t('Material')}
            look="slim"
            value={materialId}
            empty={t('None yet')}
            options={stock.map(({ id, name, thicknessMm }) => ({
              value: id,
              text: name,
              aside: asLength(thicknessMm),
            }))}
            choose={setMaterial}
          />
        </Labelled>
      </div>
      {make.isError && (
        <div className="mt-3">
          <Notice level="blocks">{sentenceOf(make.error)}</Notice>
        </div>
      )}
    </StepFrame>
  );
}
