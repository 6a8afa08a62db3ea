import type { MachineUses } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { counted } from '../ui/counted.ts';
import { Notice } from '../ui/notice.tsx';
import { t } from '../words/words.ts';

/** So many jobs are named; more are counted. */
const namedJobs = 5;

/** What goes by a machine; asked for where there is one. */
export function useUses(machineId: string | undefined) {
  return useQuery({
    queryKey: ['machine-uses', machineId],
    queryFn: () => api.machineUses(machineId as string),
    enabled: machineId !== undefined,
  });
}

/** Such as `Used by 3 jobs, 12 recipes`. */
export function usesInWords(uses: MachineUses | undefined): string {
  if (!uses) return '';
  const recipes = uses.recipes.reduce((sum, { count }) => sum + count, 0);
  return t('Used by {{jobs}}, {{recipes}}', {
    jobs: counted(uses.jobs.length, 'job'),
    recipes: counted(recipes, 'recipe'),
  });
}

/** Puts a machine away, having said what goes by it, or takes it back. */
export function PutAway(props: { machine: Machine; uses: MachineUses | undefined; put: (machine: Machine) => void }) {
  const { machine, uses, put } = props;
  const [isAsked, ask] = useState(false);
  const { isPutAway: _, ...back } = machine;
  if (machine.isPutAway) return <Button onClick={() => put(back)}>{t('Take it back')}</Button>;
  if (!isAsked) return <Button onClick={() => ask(true)}>{t('Put away…')}</Button>;
  return (
    <div className="w-full">
      <Notice level="warns" title={t('Put {{name}} away?', { name: machine.name })}>
        <p>
          {t(
            'It is not offered for jobs any more, and Lambent does not speak to it. {{uses}}: they stay as they are, and the jobs still open. It can be taken back.',
            { uses: usesInWords(uses) },
          )}
        </p>
        {uses && uses.jobs.length > 0 && (
          <ul className="mt-1.5 list-disc pl-5">
            {uses.jobs.slice(0, namedJobs).map(({ id, title }) => (
              <li key={id}>
                <Link to={`/jobs/${id}`} className="text-petrol underline">
                  {title}
                </Link>
              </li>
            ))}
            {uses.jobs.length > namedJobs && <li>{t('and {{jobs}} more', { jobs: uses.jobs.length - namedJobs })}</li>}
          </ul>
        )}
        {uses && uses.recipes.length > 0 && (
          <p className="mt-1.5">
            {t('Recipes of {{recipes}}.', {
              recipes: uses.recipes.map(({ material, count }) => `${material} (${count})`).join(', '),
            })}
          </p>
        )}
        <div className="mt-2.5 flex gap-2">
          <Button look="danger" onClick={() => put({ ...machine, isPutAway: true })}>
            {t('Put {{name}} away', { name: machine.name })}
          </Button>
          <Button onClick={() => ask(false)}>{t('Keep it')}</Button>
        </div>
      </Notice>
    </div>
  );
}
