import type { MachineStatus } from '../driver.ts';
import type { Connect } from '../wires/wire.ts';

export interface PlainOptions {
  readonly connect: Connect;
  /** How many characters the machine takes before it has answered; less where it tells of less. */
  readonly buffer: number;
  /** How many moves it may have beside the one that it makes, where it does not tell. */
  readonly lookAhead?: number;
  /** Called whenever what is known of the machine has changed. */
  readonly changed?: (status: MachineStatus) => void;
  /** What came that makes no sense, as it is put into the log. */
  readonly odd?: (what: string) => void;
  /** So many seconds of burning may wait in the machine. */
  readonly windowS?: number;
  /** A machine that has said nothing for so long, in waking time, is away. */
  readonly silenceMs?: number;
  /** So long a word waits for its answer, and a stop for the machine to stand, in waking time. */
  readonly wordMs?: number;
  /** So long it may take to go home. */
  readonly homeMs?: number;
  /** A machine that stands for so long, in waking time, and owes answers, has lost a line. */
  readonly owesMs?: number;
  /** After so long a line that could not be opened, or broke, is opened again. */
  readonly retryMs?: number;
}

/** The options of a line in the plain language, with what is usual where nothing is said. */
export function withDefaults(options: PlainOptions): Required<PlainOptions> {
  return {
    lookAhead: 16,
    changed: () => {},
    odd: () => {},
    windowS: 2,
    silenceMs: 3000,
    wordMs: 5000,
    homeMs: 120_000,
    owesMs: 2000,
    retryMs: 500,
    ...options,
  };
}
