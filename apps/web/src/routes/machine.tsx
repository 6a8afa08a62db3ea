import { useQuery } from '@tanstack/react-query';
import { Link, useLocation, useParams } from 'react-router';
import { api, sentenceOf } from '../api.ts';
import { MachineEditor } from '../machines/machine-editor.tsx';
import { MachineList } from '../machines/machine-list.tsx';
import { Notice } from '../ui/notice.tsx';
import { PageBar } from '../ui/page-bar.tsx';
import { PageTitle } from '../ui/page-title.tsx';
import { t } from '../words/words.ts';

/** One machine: its figures and how it is reached, changed, or typed for the first time. */
export function MachineRoute() {
  const { machineId = '' } = useParams();
  const { key, state } = useLocation();
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines });
  const stored = machines.data?.find(({ id }) => id === machineId);
  const isNew = machineId === 'new';
  // A machine that was just added is typed on in the editor that it was added in.
  const editor: string = state?.editor ?? (isNew ? key : machineId);
  return (
    <div className="flex h-full flex-col">
      <PageTitle>{stored?.name ?? (isNew ? t('A new machine') : t('Machine'))}</PageTitle>
      <PageBar />
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto flex max-w-[1280px] flex-col gap-4 p-4 lg:flex-row">
          <MachineList machines={machines.data ?? []} />
          {machines.isError && <Notice level="blocks">{sentenceOf(machines.error)}</Notice>}
          {machines.data && (stored || isNew) && <MachineEditor key={editor} editor={editor} stored={stored} />}
          {machines.data && !stored && !isNew && (
            <div className="flex-1">
              <Notice level="blocks" title={t('There is no such machine.')}>
                <Link to="/machines" className="text-petrol underline">
                  {t('To the machines')}
                </Link>
              </Notice>
            </div>
          )}
        </div>
      </main>
    </div>
  );
}
