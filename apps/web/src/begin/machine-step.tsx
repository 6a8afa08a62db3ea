import {
  atWork,
  beamOf,
  type Machine,
  type MachineKind,
  machineDoubts,
  machineKinds,
  type Origin,
  usualMachine,
} from '@lambent/core/machine';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { BedPicture } from '../machines/bed-picture.tsx';
import { FigureField } from '../machines/figure-field.tsx';
import { kindNames, zeroNames } from '../machines/machine-words.ts';
import { Choice } from '../ui/choice.tsx';
import { asSize } from '../ui/figures.ts';
import { Labelled } from '../ui/labelled.tsx';
import { Notice } from '../ui/notice.tsx';
import { Words } from '../ui/words.tsx';
import { t } from '../words/words.ts';
import { StepFrame } from './step-frame.tsx';

/** The first machine: its kind gives usual figures, of which those that differ are typed. A stand-in of it runs at once. */
export function MachineStep({ machines, next }: { machines: readonly Machine[]; next: () => void }) {
  const queries = useQueryClient();
  const [draft, setDraft] = useState<Machine>({
    ...usualMachine('co2'),
    connection: { kind: 'stand-in', factor: 20 },
  });
  const doubts = machineDoubts(draft);
  const change = (part: Partial<Machine>) => setDraft((known) => ({ ...known, ...part }));
  const add = useMutation({
    mutationFn: () => api.addMachine(draft),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['machines'] });
      next();
    },
  });
  const known = atWork(machines);
  const chooseKind = (kind: MachineKind) =>
    setDraft(({ name, connection }) => ({ ...usualMachine(kind), name, connection }));
  const isReady = draft.name.trim() !== '' && !doubts.some(({ blocks }) => blocks) && !add.isPending;
  return (
    <StepFrame
      title={known.length === 0 ? t('Your machine') : t('Another machine')}
      about={t(
        'Its kind brings usual figures; change what differs. It starts on a stand-in, a simulated machine with these figures, so that you can try everything without burning anything. Connect the real one later, under Machines.',
      )}
      finish={{ text: add.isPending ? t('Adding it…') : t('Add the machine'), isReady, run: () => add.mutate() }}
      skip={next}
      skipText={known.length === 0 ? t('Skip this step') : t('Go on')}
    >
      {known.length > 0 && (
        <ul className="mb-3 flex flex-wrap gap-2" aria-label={t('Your machines')}>
          {known.map((machine) => (
            <li key={machine.id} className="rounded-lg border border-line bg-raised px-3 py-1.5">
              <Link to={`/machines/${machine.id}`} className="font-semibold text-petrol underline">
                {machine.name}
              </Link>{' '}
              <span className="text-quiet">
                {beamOf(machine)}, {asSize(machine.bedWidth, machine.bedHeight)}
              </span>
            </li>
          ))}
        </ul>
      )}
      <div className="grid gap-5 lg:grid-cols-[1fr_300px]">
        <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2.5 self-start sm:grid-cols-3">
          <Words
            label={t('Name')}
            value={draft.name}
            set={(name) => change({ name })}
            most={60}
            placeholder={t('Such as Sandpiper')}
          />
          <Labelled label={t('Kind')}>
            <Choice
              label={t('Kind')}
              look="slim"
              value={draft.kind}
              options={machineKinds.map((kind) => ({ value: kind, text: kindNames[kind] }))}
              choose={chooseKind}
            />
          </Labelled>
          <FigureField name="ratedW" draft={draft} change={change} doubts={doubts} />
          <FigureField name="bedWidth" draft={draft} change={change} doubts={doubts} />
          <FigureField name="bedHeight" draft={draft} change={change} doubts={doubts} />
          <Labelled label={t('Zero corner')}>
            <Choice
              label={t('Zero corner')}
              look="slim"
              value={draft.origin}
              options={Object.entries(zeroNames).map(([value, text]) => ({ value: value as Origin, text }))}
              choose={(origin) => change({ origin })}
            />
          </Labelled>
          <FigureField name="topSpeed" draft={draft} change={change} doubts={doubts} />
          <FigureField name="travelSpeed" draft={draft} change={change} doubts={doubts} />
          <FigureField name="acceleration" draft={draft} change={change} doubts={doubts} />
        </div>
        <BedPicture machine={draft} />
      </div>
      {add.isError && (
        <div className="mt-3">
          <Notice level="blocks">{sentenceOf(add.error)}</Notice>
        </div>
      )}
    </StepFrame>
  );
}
