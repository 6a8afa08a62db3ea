import { lazy, Suspense } from 'react';
import { isPublicPath } from '../routes/public-paths.ts';
import { useIsSignInNeeded } from '../stores/session.ts';

const SignIn = lazy(() => import('./sign-in.tsx'));

/** Asks for name and password, over whatever is open, where the shop has people and nobody is signed in. */
export function SignInAsked() {
  const isNeeded = useIsSignInNeeded();
  if (!isNeeded || isPublicPath()) return null;
  return (
    <Suspense>
      <SignIn />
    </Suspense>
  );
}
