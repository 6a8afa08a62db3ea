import type { AirDto, HeadDto, MachineCommand } from '@lambent/contracts';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';

/** What can be asked of a machine by hand; what it refuses is said. */
export function useHand(machineId: string) {
  return useMemo(() => {
    const say = (asked: Promise<unknown>) => void asked.catch((error) => toast.error(sentenceOf(error)));
    return {
      go: (wish: HeadDto) => say(api.moveHead(machineId, wish)),
      focus: (dz: number) => say(api.moveFocus(machineId, dz)),
      air: (air: AirDto['air']) => say(api.switchAir(machineId, air)),
      tell: (command: MachineCommand) => say(api.command(machineId, command)),
    };
  }, [machineId]);
}
