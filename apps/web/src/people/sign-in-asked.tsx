import { lazy, Suspense } from 'react';
import { joinPath } from '../routes/join-path.ts';
import { useIsSignInNeeded } from '../stores/session.ts';

const SignIn = lazy(() => import('./sign-in.tsx'));

/** Asks for name and password, over whatever is open, where the shop has people and nobody is signed in. */
export function SignInAsked() {
  const isNeeded = useIsSignInNeeded();
  // Who joins has neither yet.
  if (!isNeeded || window.location.pathname.startsWith(joinPath)) return null;
  return (
    <Suspense>
      <SignIn />
    </Suspense>
  );
}
