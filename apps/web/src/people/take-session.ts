import type { SessionAnswer } from '@lambent/contracts';
import { useSession } from '../stores/session.ts';
import { setWho } from '../stores/who.ts';

/** Has the page go by what the server says of who is here: what is done from this screen is signed by who is signed in. */
export function takeSession({ person, hasManager, demo }: SessionAnswer): void {
  useSession.setState({ person, hasManager, demo });
  if (person) setWho(person.name);
}
