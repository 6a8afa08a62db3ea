import type { PersonAnswer } from '@lambent/contracts';
import { create } from 'zustand';

interface Session {
  /** Who is signed in here; null where nobody is. */
  readonly person: PersonAnswer | null;
  /** Whether the shop has a manager, so that everybody signs in; null until the server has said. */
  readonly hasManager: boolean | null;
  /** In the demo, whom one can be by one click; empty elsewhere. */
  readonly demo: readonly PersonAnswer[];
}

/** Who is signed in at this screen. */
export const useSession = create<Session>(() => ({ person: null, hasManager: null, demo: [] }));

/** The server no longer knows who is here. */
export function sessionEnded(): void {
  useSession.setState({ person: null, hasManager: true });
}

/** Whether somebody has to sign in before anything else. */
export function useIsSignInNeeded(): boolean {
  return useSession(({ person, hasManager }) => hasManager === true && person === null);
}
