import type { Progress } from '@lambent/core/geometry';

/** Work that is done sooner than this says nothing of how far it has come. */
const saidAfterMs = 1000;
const sayEveryMs = 200;

/** Where progress is said: on a terminal its line is written over; to a file or a program nothing is said. */
export interface Terminal {
  readonly isTTY?: boolean;
  write(text: string): unknown;
}

/**
 * Says on a terminal how far long work has come, in one line that goes away with the work.
 * @param now the time in ms
 * @returns what the work tells, and what is called when it is over
 */
export function saidProgress(
  what: string,
  terminal: Terminal = process.stderr,
  now: () => number = () => performance.now(),
): { progress: Progress | undefined; over: () => void } {
  if (!terminal.isTTY) return { progress: undefined, over: () => undefined };
  let next = now() + saidAfterMs;
  let said = '';
  const progress = (share: number) => {
    if (now() < next) return;
    next = now() + sayEveryMs;
    said = `${what}, ${Math.round(share * 100)} %`;
    terminal.write(`\r${said}`);
  };
  return { progress, over: () => said && terminal.write(`\r${' '.repeat(said.length)}\r`) };
}
