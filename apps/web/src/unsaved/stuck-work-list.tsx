import { lazy, Suspense } from 'react';
import type { StuckWork } from './send-unsaved.ts';

const StuckWorkRows = lazy(() => import('./stuck-work.tsx'));

/** Work that this browser kept and that could not be saved. It is rare: what shows it is loaded when there is some. */
export function StuckWorkList(props: { readonly stuck: readonly StuckWork[]; readonly changed: () => void }) {
  if (props.stuck.length === 0) return null;
  return (
    <Suspense>
      <StuckWorkRows {...props} />
    </Suspense>
  );
}
