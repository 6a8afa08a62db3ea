import type { ErrorAnswer } from '@lambent/contracts';
import type { paths } from '@lambent/contracts/client';
import createClient from 'openapi-fetch';
import { sessionEnded } from './stores/session.ts';
import { said, t } from './words/words.ts';

/** What the server said no to, in its own sentence. */
export class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly details?: unknown,
    /** As HTTP has it; 0 where the server did not answer. */
    readonly status = 0,
  ) {
    super(message);
  }

  /** Whether asking again would be answered the same: what was sent is at fault, and not the moment. */
  get isFinal(): boolean {
    return this.status >= 400 && this.status < 500 && ![408, 425, 429, 499].includes(this.status);
  }
}

/** The server, as it describes itself: what it takes and answers is typed by that (`npm run api`). Tests have no address. */
export const server = createClient<paths>({ baseUrl: globalThis.location?.origin, fetch: answered });

/** @throws Refusal where the server does not answer, or refuses */
async function answered(request: Request): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(request);
  } catch {
    throw new Refusal('no-server', t('The server does not answer. Is Lambent still running?'));
  }
  if (response.ok) return response;
  const answer = (await response.json().catch(() => null)) as ErrorAnswer | null;
  if (answer?.error.code === 'not-signed-in') sessionEnded();
  throw new Refusal(
    answer?.error.code ?? 'failed',
    answer?.error.message ?? t('The server answered {{status}}.', { status: response.status }),
    answer?.error.details,
    response.status,
  );
}

/** What was answered: what is refused is thrown on the way. */
export async function data<Data>(asked: Promise<{ data?: Data }>): Promise<Data> {
  return (await asked).data as Data;
}

/** A body that goes as it is, byte for byte; its description calls it a text. */
export function raw(body: Blob) {
  return {
    body: body as never,
    bodySerializer: () => body,
    headers: { 'Content-Type': body.type || 'application/octet-stream' },
  };
}

/** The longest name of an edit, and the longest title, that the server takes. */
const longestName = 120;

/** A name as the server takes it. */
export function cutName(name: string): string {
  return name.length <= longestName ? name : `${name.slice(0, longestName - 1)}…`;
}

type Mutable<T> = T extends (...args: never[]) => unknown ? T : { -readonly [Key in keyof T]: Mutable<T[Key]> };
/** A body that the client does not change, though its type would let it. */
export const sent = <T>(body: T) => body as Mutable<T>;

/** The parameters of a path that ends in an id. */
export const withId = <Id extends string | number>(id: Id) => ({ path: { id } });

/** What went wrong, as a sentence for whoever asked. */
export function sentenceOf(error: unknown): string {
  return said(error instanceof Error ? error.message : String(error));
}
