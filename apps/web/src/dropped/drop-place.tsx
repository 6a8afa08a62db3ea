import { atWork } from '@lambent/core/machine';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Outlet } from 'react-router';
import { toast } from 'sonner';
import { api } from '../api.ts';
import { useJobFile } from '../desk/use-job-file.tsx';
import { t } from '../words/words.ts';
import { type DroppedFiles, filesOfDrop } from './files-of-drop.ts';

const NewJobs = lazy(() => import('./new-jobs.tsx'));

/** The place that is open; files that are dropped on it, where it does not take them itself, become jobs. */
export function DropPlace() {
  const [dropped, setDropped] = useState<DroppedFiles | null>(null);
  const [isOver, setOver] = useState(false);
  const machines = useQuery({ queryKey: ['machines'], queryFn: api.machines }).data ?? [];
  const [takeJobFile, jobFileDialog] = useJobFile(machines);
  useEffect(() => {
    const isOurs = (event: DragEvent) => !event.defaultPrevented && event.dataTransfer?.types.includes('Files');
    const over = (event: DragEvent) => {
      setOver(Boolean(isOurs(event)));
      if (isOurs(event)) event.preventDefault();
    };
    const leave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const drop = async (event: DragEvent) => {
      setOver(false);
      if (!isOurs(event) || !event.dataTransfer) return;
      event.preventDefault();
      const taken = await filesOfDrop(event.dataTransfer);
      const [first] = taken.files;
      if (taken.files.length === 1 && first.name.toLowerCase().endsWith('.zip')) await takeJobFile(first);
      else if (first) setDropped(taken);
      else
        toast.message(
          t('There is no drawing and no picture in {{folder}}.', { folder: taken.folder ?? t('what was dropped') }),
        );
    };
    window.addEventListener('dragover', over);
    window.addEventListener('dragleave', leave);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('drop', drop);
    };
  });
  return (
    <>
      <Outlet />
      {isOver && (
        <div className="pointer-events-none fixed inset-3 z-40 flex items-end justify-center rounded-2xl border-2 border-dashed border-petrol pb-10">
          <p className="rounded-xl bg-paper px-5 py-3 font-bold shadow-float">{t('Drop it to make a job of it')}</p>
        </div>
      )}
      {jobFileDialog}
      {dropped && (
        <Suspense>
          <NewJobs {...dropped} machines={atWork(machines)} close={() => setDropped(null)} />
        </Suspense>
      )}
    </>
  );
}
