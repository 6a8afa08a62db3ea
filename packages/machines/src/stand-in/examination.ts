import { asSentence } from '../as-sentence.ts';
import type { Examination, ExaminedStep, MachineStatus } from '../driver.ts';

/** What is known of a stand-in by what it said last. */
export function examineStandIn({ state, reason, lid }: MachineStatus): Examination {
  if (state === 'away') {
    const message = reason ? asSentence(reason) : 'Nothing answers in Lambent’s own language.';
    return { steps: [{ level: 'fails', message }], figures: {} };
  }
  const stands = state === 'idle' && lid === 'closed';
  const is = `It is ${state}${reason ? `, ${reason}` : ''}, its lid ${lid}.`;
  const steps: ExaminedStep[] = [
    { level: 'good', message: 'The line is open, and it answers in Lambent’s own language.' },
    { level: stands ? 'good' : 'warns', message: is },
    { level: 'good', message: 'It shows what it burns, has a lid, and holds by itself when Lambent is silent.' },
  ];
  return { steps, figures: {} };
}
