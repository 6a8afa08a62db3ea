import { lazy, Suspense } from 'react';
import { useIsWhoAsked } from '../stores/who.ts';

const WhoDialog = lazy(() => import('./who-dialog.tsx'));

/** Asks who is at this screen, where something is signed and nobody has said. */
export function WhoAsked() {
  const isAsked = useIsWhoAsked();
  return isAsked ? (
    <Suspense>
      <WhoDialog />
    </Suspense>
  ) : null;
}
