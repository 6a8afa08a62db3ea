import { Dialog, DialogPanel, DialogTitle, Radio, RadioGroup } from '@headlessui/react';
import type { Machine } from '@lambent/core/machine';
import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { keepFilesFor } from '../bench/arriving/files-for-job.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { counted } from '../ui/counted.ts';
import { asSize } from '../ui/figures.ts';
import { Labelled } from '../ui/labelled.tsx';
import { Notice } from '../ui/notice.tsx';
import { ProgressBar } from '../ui/progress-bar.tsx';
import { t } from '../words/words.ts';
import { type DroppedFiles, titleFrom } from './files-of-drop.ts';
import { type FileEnd, jobFromFile } from './job-from-file.ts';

interface Props extends DroppedFiles {
  readonly machines: readonly Machine[];
  readonly close: () => void;
}

type Made = 'each' | 'one';

/** Asks what is to become of files that were dropped: a job each, or one with all of them. */
export default function NewJobs({ files, folder, leftOut, machines, close }: Props) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [made, setMade] = useState<Made>(files.length > 1 ? 'each' : 'one');
  const [title, setTitle] = useState(folder ?? titleFrom(files[0].name));
  const [machineId, setMachine] = useState(machines[0]?.id ?? null);
  const [ends, setEnds] = useState<readonly FileEnd[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const stopped = useRef(false);
  const isWorking = ends !== null && ends.length < files.length && trouble === null && !stopped.current;

  const leave = () => {
    stopped.current = true;
    close();
  };
  const makeOne = async (machine: string) => {
    const { id } = await api.createJob(title.trim() || titleFrom(files[0].name), machine);
    // The Bench reads them, each on its card.
    keepFilesFor(id, files);
    close();
    await navigate(`/jobs/${id}/art`);
  };
  const makeEach = async (machine: string) => {
    const all: FileEnd[] = [];
    for (const file of files) {
      if (stopped.current) break;
      all.push(await jobFromFile(file, machine));
      setEnds([...all]);
    }
  };
  const make = async () => {
    if (machineId === null) return;
    setTrouble(null);
    setEnds([]);
    try {
      await (made === 'one' ? makeOne(machineId) : makeEach(machineId));
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
    void queries.invalidateQueries({ queryKey: ['jobs'] });
  };
  return (
    <Dialog open onClose={leave} className="relative z-40">
      <div className="fixed inset-0 flex items-center justify-center bg-slate/35 p-4">
        <DialogPanel className="flex max-h-full w-[460px] flex-col gap-3 rounded-xl border border-line bg-paper p-5 shadow-float">
          <DialogTitle className="text-[17px] font-bold [overflow-wrap:anywhere]">
            {files.length === 1 ? files[0].name : `${folder ? `${folder}: ` : ''}${counted(files.length, 'file')}`}
          </DialogTitle>
          {leftOut > 0 && (
            <p className="text-quiet">
              {t(
                leftOut === 1
                  ? 'One other file in it is no drawing or picture, and is left out.'
                  : '{{leftOut}} other files in it are no drawings or pictures, and are left out.',
                { leftOut },
              )}
            </p>
          )}
          {ends === null || (made === 'one' && trouble === null) ? (
            <>
              {files.length > 1 && <HowMany made={made} count={files.length} choose={setMade} />}
              {made === 'one' && (
                <label className="flex flex-col gap-1">
                  <span className="text-quiet">{t('Title')}</span>
                  <input
                    value={title}
                    maxLength={120}
                    onChange={(event) => setTitle(event.target.value)}
                    onFocus={(event) => event.target.select()}
                    onKeyDown={(event) => {
                      if (event.key === 'Enter') void make();
                    }}
                    className="h-9 rounded-lg border border-line bg-raised px-3 focus:border-petrol focus:outline-none"
                  />
                </label>
              )}
              <MachineOf machines={machines} value={machineId} choose={setMachine} />
            </>
          ) : (
            <Ends files={files} ends={ends} />
          )}
          {isWorking && <ProgressBar label={t('Making the jobs')} share={(ends?.length ?? 0) / files.length} />}
          {trouble && <Notice level="blocks">{trouble}</Notice>}
          <div className="flex gap-2">
            {ends === null && (
              <Button look="main" disabled={machineId === null} onClick={() => void make()}>
                {made === 'one' ? t('Make the job') : `Make ${files.length} jobs`}
              </Button>
            )}
            <Button onClick={leave}>{ends === null ? t('Cancel') : isWorking ? t('Stop') : t('Close')}</Button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function HowMany({ made, count, choose }: { made: Made; count: number; choose: (made: Made) => void }) {
  const ways: readonly { value: Made; text: string; about: string }[] = [
    { value: 'each', text: t('{{count}} jobs', { count }), about: t('one of each file, named after it') },
    { value: 'one', text: t('One job'), about: t('with all of them; each is placed on its bed') },
  ];
  return (
    <RadioGroup value={made} onChange={choose} aria-label={t('How many jobs')} className="flex flex-col gap-1.5">
      {ways.map(({ value, text, about }) => (
        <Radio
          key={value}
          value={value}
          className="cursor-pointer rounded-lg border border-line bg-raised px-3 py-2 data-checked:border-petrol data-checked:bg-petrol-soft data-focus:ring-1 data-focus:ring-petrol"
        >
          <span className="font-semibold">{text}</span> <span className="text-quiet">{about}</span>
        </Radio>
      ))}
    </RadioGroup>
  );
}

function MachineOf(props: { machines: readonly Machine[]; value: string | null; choose: (id: string) => void }) {
  const { machines, value, choose } = props;
  if (machines.length === 0) {
    return (
      <Notice level="notes" title={t('A job is made for a machine.')}>
        <p className="mb-2">{t('There is none yet: add one first.')}</p>
        <Link to="/machines/new" className={buttonLook('main')}>
          {t('Add a machine')}
        </Link>
      </Notice>
    );
  }
  return (
    <Labelled label={t('Machine')}>
      <Choice
        label={t('Machine')}
        bare
        value={value}
        options={machines.map(({ id, name, bedWidth, bedHeight }) => ({
          value: id,
          text: name,
          aside: asSize(bedWidth, bedHeight),
        }))}
        choose={choose}
      />
    </Labelled>
  );
}

/** What became of each file so far. */
function Ends({ files, ends }: { files: readonly File[]; ends: readonly FileEnd[] }) {
  return (
    <ul className="flex max-h-[50vh] flex-col gap-1 overflow-y-auto" aria-label={t('Jobs made')} aria-live="polite">
      {ends.map((end, i) => (
        <li key={`${i} ${files[i].name}`} className="[overflow-wrap:anywhere]">
          {'jobId' in end ? (
            <Link to={`/jobs/${end.jobId}`} className="font-semibold text-petrol underline">
              {titleFrom(files[i].name)}
            </Link>
          ) : (
            <>
              <span className="font-semibold">{files[i].name}</span>{' '}
              <span className="text-stop">{t('became no job: {{refusal}}', { refusal: end.refusal })}</span>
            </>
          )}
        </li>
      ))}
    </ul>
  );
}
