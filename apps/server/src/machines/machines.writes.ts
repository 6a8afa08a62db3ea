import { randomUUID } from 'node:crypto';
import { type Machine, machineFromJson } from '@lambent/core/machine';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { MachineEntity } from './machine.entity.ts';

/*
 * Every change of the machines. What is no machine is refused with NotAMachine.
 */

/** Adds a machine behind the others, under a new id. @throws PlainError 409 where its name is taken. */
export async function addMachine(writing: Writing, json: Record<string, unknown>): Promise<Machine> {
  const machine = machineFromJson({ ...json, id: randomUUID() });
  await expectOwnName(writing, machine);
  const position = await writing.count(MachineEntity);
  await writing.insert(MachineEntity, { id: machine.id, position, definition: machine });
  return machine;
}

/** @throws PlainError 404 where there is no such machine, 409 where its name is another's. */
export async function changeMachine(writing: Writing, id: string, json: Record<string, unknown>): Promise<Machine> {
  const machine = machineFromJson({ ...json, id });
  await expectOwnName(writing, machine);
  const { affected } = await writing.update(MachineEntity, { id }, { definition: machine });
  if (!affected) throw notFound('machine');
  return machine;
}

async function expectOwnName(writing: Writing, { id, name }: Machine): Promise<void> {
  const all = await writing.find(MachineEntity);
  const other = all.find((row) => row.id !== id && row.definition.name.toLowerCase() === name.toLowerCase());
  if (!other) return;
  const where = other.definition.isPutAway ? ' It is put away, and can be taken back.' : '';
  throw new PlainError(
    409,
    'machine-name-taken',
    `There is a machine “${other.definition.name}” already.${where} Give this one another name.`,
  );
}
