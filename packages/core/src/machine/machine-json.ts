import { Mismatch } from '../schema/schema.ts';
import { machineDoubts } from './doubts.ts';
import { type MachineFigureName, machineFigures } from './figures.ts';
import { type Machine, machineSchema } from './machine.ts';

/** Says what in a machine cannot be. */
export class NotAMachine extends Error {
  override readonly name = 'NotAMachine';
}

/**
 * Takes a machine from JSON.
 *
 * @throws NotAMachine with one sentence that names the figure
 */
export function machineFromJson(json: unknown): Machine {
  let machine: Machine;
  try {
    machine = machineSchema.read(json);
  } catch (error) {
    if (!(error instanceof Mismatch)) throw error;
    throw new NotAMachine(`This is not a machine: ${faultOf(error)}.`);
  }
  const doubt = machineDoubts(machine).find(({ blocks }) => blocks);
  if (doubt) throw new NotAMachine(`The machine is not kept. ${doubt.message}`);
  return machine;
}

/** What is wrong, with the figure as screens call it. */
function faultOf({ place, what, message }: Mismatch): string {
  if (place === '') return message;
  const figure = machineFigures[place as MachineFigureName];
  return figure ? `“${figure.name}” ${what}` : message;
}
