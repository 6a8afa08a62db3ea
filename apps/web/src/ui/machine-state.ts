import type { MachineState } from '@lambent/contracts';
import { t } from '../words/words.ts';

const looks: Record<MachineState['state'], { text: string; dot: string }> = {
  away: { text: t('Away'), dot: 'border-2 border-quiet' },
  idle: { text: t('Idle'), dot: 'bg-settled' },
  homing: { text: t('Homing'), dot: 'bg-petrol' },
  running: { text: t('Running'), dot: 'bg-flame' },
  held: { text: t('Held'), dot: 'bg-warn' },
  alarm: { text: t('Alarm'), dot: 'bg-stop' },
};

/** How a machine's state is named and marked. */
export function stateLook(state: MachineState['state']): { text: string; dot: string } {
  return looks[state];
}
