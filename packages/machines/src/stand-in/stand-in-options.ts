import type { MachineStatus } from '../driver.ts';

export interface StandInOptions {
  readonly host: string;
  readonly port: number;
  /** Called whenever what is known of the machine has changed. */
  readonly changed?: (status: MachineStatus) => void;
  /** What came that makes no sense, as it is put into the log. */
  readonly odd?: (what: string) => void;
  /** So many seconds of burning may wait in the machine. */
  readonly windowS?: number;
  /** After so many seconds without a word from us the machine holds by itself. */
  readonly watchS?: number;
  /** A machine that has said nothing for so long, in waking time, is away. */
  readonly silenceMs?: number;
  /** So long a word waits for its answer, in waking time. */
  readonly wordMs?: number;
  /** A machine that takes nothing for so long, in waking time, though it has room, takes no more. */
  readonly stuckMs?: number;
}

/** The options of a line to the stand-in, with what is usual where nothing is said. */
export function withDefaults(options: StandInOptions): Required<StandInOptions> {
  return {
    changed: () => {},
    odd: () => {},
    windowS: 2,
    watchS: 2,
    silenceMs: 3000,
    wordMs: 5000,
    stuckMs: 20_000,
    ...options,
  };
}
