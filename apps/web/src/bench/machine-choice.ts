import { boundsOf } from '@lambent/core/document';
import { clearSettings, setMachine } from '@lambent/core/edits';
import { boxContains } from '@lambent/core/geometry';
import { atWork, bedBox, type Machine } from '@lambent/core/machine';
import { toast } from 'sonner';
import { saySettingsGone } from './settings-gone.ts';
import type { BenchActions } from './state/bench-state.ts';
import { jobOf, machineOf } from './state/document.ts';

/** The machines that a job may go to: those at work, and the one it is on. */
export function offeredMachines(machines: readonly Machine[], current: string): readonly Machine[] {
  const offered = atWork(machines);
  return offered.some(({ id }) => id === current)
    ? offered
    : machines.filter(({ id, isPutAway }) => id === current || !isPutAway);
}

/**
 * Moves the job to another machine. Every size stays true, and what no longer fits its bed is said at once. What was
 * changed by hand was for the other machine: it goes, unless the operator keeps it.
 */
export function changeMachine(actions: BenchActions, machineId: string): void {
  const before = machineOf(actions.get());
  const { settings } = jobOf(actions.get());
  if (machineId === before.id) return;
  actions.edit('change machine', (job) => setMachine(clearSettings(job), machineId));
  const machine = machineOf(actions.get());
  if (machine === before) return;
  saySettingsGone(actions, settings, before.name);
  const { drawing, sheets } = jobOf(actions.get());
  const bed = bedBox(machine);
  const off = drawing.items.filter((item) => !item.hidden && !boxContains(bed, boundsOf(item), 0.005));
  const short = sheets.filter(
    ({ x, y, width, height }) => x < 0 || y < 0 || x + width > bed.maxX || y + height > bed.maxY,
  );
  const said = [
    off.length > 0 ? `${off.length} ${off.length === 1 ? 'item lies' : 'items lie'} off it` : '',
    short.length > 0
      ? `${short.length === 1 ? 'a sheet is' : `${short.length} sheets are`} larger than it or over its edge`
      : '',
  ].filter(Boolean);
  if (said.length === 0) return;
  toast.warning(
    `The bed of ${machine.name} is ${machine.bedWidth} × ${machine.bedHeight} mm: ${said.join(', and ')}.`,
    {
      action: off.length > 0 ? { label: 'Select', onClick: () => actions.select(off.map(({ id }) => id)) } : undefined,
    },
  );
}
