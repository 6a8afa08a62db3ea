import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import type { JobFileLook } from '@lambent/contracts';
import { atWork, type Machine } from '@lambent/core/machine';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { wholeDayOf } from '../stores/dates.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { counted } from '../ui/counted.ts';
import { asLength, asSize } from '../ui/figures.ts';
import { Notice } from '../ui/notice.tsx';
import { t } from '../words/words.ts';

/** The one that the job was made for, where this shop has it not. */
const asMade = t('as made');

interface Props {
  /** Who takes it in. */
  readonly author: string;
  readonly file: File;
  readonly look: JobFileLook;
  readonly machines: readonly Machine[];
  readonly close: () => void;
}

/** What is in a job's file, what of it this shop has not, and the machine that it is to be for. */
export default function TakeJobFile({ author, file, look, machines, close }: Props) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const offered = atWork(machines);
  const made = look.machine;
  const [machineId, setMachine] = useState(made.isHere ? made.id : (offered[0]?.id ?? asMade));
  const take = useMutation({
    mutationFn: () => api.takeJobFile(author, machineId === asMade ? undefined : machineId, file),
    onSuccess: (taken) => {
      for (const name of ['jobs', 'machines', 'materials', 'keys'])
        void queries.invalidateQueries({ queryKey: [name] });
      if (taken.notes.length > 0) toast.message(taken.notes.join(' '), { duration: 15_000 });
      navigate(`/jobs/${taken.id}`);
    },
  });
  const missing = look.materials.filter(({ isHere }) => !isHere);
  return (
    <Dialog open onClose={close} className="relative z-40">
      <div className="fixed inset-0 flex items-center justify-center bg-slate/35 p-4">
        <DialogPanel className="flex w-[520px] flex-col gap-3 rounded-xl border border-line bg-paper p-5 shadow-float">
          <div>
            <DialogTitle className="text-[17px] font-bold">{look.title}</DialogTitle>
            <p className="text-quiet">
              {[
                look.project,
                look.shopName && t('from {{shopName}}', { shopName: look.shopName }),
                wholeDayOf(look.madeAt),
              ]
                .filter(Boolean)
                .join(' · ')}
            </p>
          </div>
          <dl className="grid grid-cols-[120px_1fr] gap-x-3 gap-y-1">
            <dt className="text-quiet">{t('Holds')}</dt>
            <dd>
              {counted(look.items, 'item')}, {counted(look.originals.length, 'original')},{' '}
              {counted(look.pictures, 'picture')}
            </dd>
            <dt className="text-quiet">{t('Made for')}</dt>
            <dd>
              {t('{{name}}, bed {{bedWidth}}', { name: made.name, bedWidth: asSize(made.bedWidth, made.bedHeight) })}
            </dd>
            <dt className="text-quiet">{t('Material')}</dt>
            <dd>
              {look.materials.map(({ name, thicknessMm }) => `${name} ${asLength(thicknessMm)}`).join(', ') ||
                t('none chosen')}
            </dd>
            <dt className="text-quiet">{t('Colour key')}</dt>
            <dd>{look.key.name}</dd>
          </dl>
          {(missing.length > 0 || look.newFonts.length > 0) && (
            <Notice level="notes" title={t('New to this shop, and added with it')}>
              {t('{{join}}. Recipes come as copied, and only for the machine that they were made for.', {
                join: [
                  ...missing.map(({ name, thicknessMm }) => `${name} ${asLength(thicknessMm)}`),
                  ...look.newFonts,
                ].join(', '),
              })}
            </Notice>
          )}
          <div className="flex flex-col gap-1">
            <span className="text-quiet">{t('For the machine')}</span>
            <Choice
              label={t('For the machine')}
              bare
              value={machineId}
              options={[
                ...offered.map(({ id, name, bedWidth, bedHeight }) => ({
                  value: id,
                  text: name,
                  aside: asSize(bedWidth, bedHeight),
                })),
                ...(made.isHere
                  ? []
                  : [{ value: asMade, text: t('{{name}}, added but not connected', { name: made.name }) }]),
              ]}
              choose={setMachine}
            />
            {machineId !== made.id && machineId !== asMade && (
              <p className="text-[12px] text-quiet">
                {t('What was typed by hand for {{name}} is left out: it was for that machine.', { name: made.name })}
              </p>
            )}
          </div>
          {take.isError && <Notice level="blocks">{sentenceOf(take.error)}</Notice>}
          <div className="flex gap-2">
            <Button look="main" disabled={take.isPending} onClick={() => take.mutate()}>
              {take.isPending ? t('Taking it in…') : t('Take it in')}
            </Button>
            <Button onClick={close}>{t('Leave it')}</Button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
