import { asSentence } from '../as-sentence.ts';
import type { Examination, ExaminedStep, MachineStatus, ToldFigures } from '../driver.ts';
import type { PlainAnswer } from './plain-line.ts';
import type { PlainStatus } from './plain-status.ts';

/** By which numbers such controllers know their figures, and what of ours each is. */
const numbered: readonly { readonly number: number; readonly figure: keyof ToldFigures; readonly scale: number }[] = [
  { number: 30, figure: 'powerScale', scale: 1 },
  { number: 110, figure: 'travelSpeed', scale: 1 / 60 },
  { number: 120, figure: 'acceleration', scale: 1 },
  { number: 121, figure: 'accelerationY', scale: 1 },
  { number: 130, figure: 'bedWidth', scale: 1 },
  { number: 131, figure: 'bedHeight', scale: 1 },
];
/** Whether the power follows the speed, and the beam is off where the head only travels. */
const laserMode = 32;

/** A machine that is to be examined. */
interface Examined {
  /** Sends a line, and waits for its answer. */
  readonly ask: (text: string) => Promise<PlainAnswer>;
  /** As it was heard last; null where it was not. */
  readonly heard: PlainStatus | null;
  readonly status: MachineStatus;
  /** How many characters it is said to take. */
  readonly buffer: number;
  /** Whether it has no run, so that it can be asked. */
  readonly isFree: boolean;
  /** The most moves that it has said it would take. */
  readonly mostRoom: number;
}

/** Finds out what a machine of the plain language tells of itself. */
export async function examinePlain({ ask, heard, status, buffer, isFree, mostRoom }: Examined): Promise<Examination> {
  const { state, reason } = status;
  const steps: ExaminedStep[] = [];
  const say = (level: ExaminedStep['level'], message: string) => steps.push({ level, message });
  if (!heard) {
    say('fails', reason ? asSentence(reason) : 'Nothing answers. Is the machine on, and the speed (baud) right?');
    return { steps, figures: {} };
  }
  say('good', 'The line is open, and it answers in the plain language.');
  if (state === 'alarm') say('warns', `It is in alarm: ${reason}. Clear the alarm or home it before a run.`);
  else say('good', `It is ${state}${reason ? `, ${reason}` : ''}.`);
  const { room } = heard;
  if (!room) say('warns', `It does not tell how much room it has: ${buffer} characters are taken for granted.`);
  else if (room.characters < buffer && state === 'idle')
    say('warns', `It takes ${room.characters} characters, and ${buffer} stand here: no more than it takes are sent.`);
  else say('good', `It takes ${room.characters} characters and ${mostRoom} moves.`);
  if (!isFree) {
    say('warns', 'It has a run: its figures are asked when that has ended.');
    return { steps, figures: {} };
  }
  const told = await ask('$$').catch((error: Error) => error.message);
  if (typeof told === 'string') say('warns', `Its figures were not told: ${told}`);
  else if (told.refusal !== null) say('warns', 'It does not tell its figures.');
  const values = typeof told === 'string' ? new Map<number, number>() : valuesIn(told);
  const isLaser = values.get(laserMode);
  if (isLaser === 0)
    say('fails', `Its laser mode is off ($${laserMode}=0): the beam would stay on between lines. Switch it on.`);
  else if (isLaser === 1) say('good', 'Its laser mode is on: the power follows the speed.');
  else say('warns', 'Whether the power follows the speed is not told. See to it before the first run.');
  const figures: Partial<Record<keyof ToldFigures, number>> = mostRoom > 1 ? { lookAhead: mostRoom - 1 } : {};
  for (const { number, figure, scale } of numbered) {
    const value = values.get(number);
    if (value !== undefined && value > 0) figures[figure] = Number((value * scale).toFixed(3));
  }
  return { steps, figures };
}

function valuesIn({ said }: PlainAnswer): Map<number, number> {
  return new Map(
    said.flatMap((text) => {
      const [, number, value] = /^\$(\d{1,3})=(-?[\d.]+)/.exec(text) ?? [];
      return number === undefined || !Number.isFinite(Number(value)) ? [] : [[Number(number), Number(value)]];
    }),
  );
}
