import { type FilesBroughtIn, filesBroughtIn } from '@lambent/core/rows';
import { useMemo } from 'react';
import { useBench } from '../../../context.ts';
import { jobOf } from '../../../state/document.ts';

/** What was brought into the job, by the names of its files. */
export function useFiles(): FilesBroughtIn {
  const arrivals = useBench((state) => jobOf(state).arrivals);
  const drawing = useBench((state) => jobOf(state).drawing);
  return useMemo(() => filesBroughtIn({ arrivals, drawing }), [arrivals, drawing]);
}
