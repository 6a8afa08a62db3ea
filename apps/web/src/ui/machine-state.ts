import type { MachineState } from '@lambent/contracts';

const looks: Record<MachineState['state'], { text: string; dot: string }> = {
  away: { text: 'Away', dot: 'border-2 border-quiet' },
  idle: { text: 'Idle', dot: 'bg-settled' },
  homing: { text: 'Homing', dot: 'bg-petrol' },
  running: { text: 'Running', dot: 'bg-flame' },
  held: { text: 'Held', dot: 'bg-warn' },
  alarm: { text: 'Alarm', dot: 'bg-stop' },
};

/** How a machine's state is named and marked. */
export function stateLook(state: MachineState['state']): { text: string; dot: string } {
  return looks[state];
}
