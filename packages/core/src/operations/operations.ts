import { cut } from './cut.ts';
import type { OperationDefinition } from './definition.ts';
import { engrave } from './engrave.ts';
import { guide } from './guide.ts';
import { note } from './note.ts';
import { photo } from './photo.ts';
import { score } from './score.ts';

/** Every operation there is: a new one is a file of its own and a line here. */
const operationTable = { cut, score, engrave, photo, guide, note };
type Table = typeof operationTable;

/** What the machine does with a layer. Guide and Note are shown, never burnt. */
export type Operation = keyof Table;

/** What burns: guides and notes have no recipes. */
export type BurntOperation = {
  [Name in Operation]: Table[Name]['burning'] extends null ? never : Name;
}[Operation];

const known = new Map(Object.entries<OperationDefinition>(operationTable) as [Operation, OperationDefinition][]);
const names = [...known.keys()];
const burntNames = names.filter(isBurnt);

/** Every operation, as lists show them. */
export const operations: readonly Operation[] = names;

/** Those that burn. */
export const burntOperations: readonly BurntOperation[] = burntNames;

/** What labels, marks and the words of test cards are burnt with. */
export const labelOperation = 'score' satisfies BurntOperation;

/** @throws RangeError where there is no operation of that name */
export function operationOf(operation: Operation): OperationDefinition {
  const found = known.get(operation);
  if (!found) throw new RangeError(`operationOf: there is no operation “${operation}”`);
  return found;
}

/** Whether an operation burns at all, or is only shown. */
export function isBurnt(operation: Operation): operation is BurntOperation {
  return operationOf(operation).burning !== null;
}

/** Whether it burns the inside of outlines, row by row. */
export function fillsAreas(operation: Operation): boolean {
  return operationOf(operation).burning?.traces === 'areas';
}

/** Whether it burns the inside of outlines all alike, and not by their greys. */
export function engravesAreas(operation: Operation): boolean {
  return fillsAreas(operation) && !burnsPictures(operation);
}

/** Whether it burns pictures, with a power that follows their tones. */
export function burnsPictures(operation: Operation): boolean {
  return operationOf(operation).burning?.followsTone ?? false;
}

/** Whether it burns along lines. */
export function followsLines(operation: Operation): boolean {
  return operationOf(operation).burning?.traces === 'lines';
}

/** Whether it goes through the stock, so that pieces come off. */
export function separates(operation: Operation): boolean {
  return operationOf(operation).burning?.separates ?? false;
}

/** How an operation burns: each way brings the settings that concern it (`settings/table.ts`). */
export type BurningWay =
  /** Whatever lights the beam. */
  | 'beam'
  /** Along lines. */
  | 'lines'
  /** Areas, row by row. */
  | 'areas'
  /** The greys of pictures. */
  | 'tones'
  /** Through the stock. */
  | 'through';

/** The ways in which an operation burns; none where it is never burnt. */
export function waysOf(operation: Operation): BurningWay[] {
  const { burning } = operationOf(operation);
  if (!burning) return [];
  const ways: BurningWay[] = ['beam', burning.traces];
  if (burning.followsTone) ways.push('tones');
  if (burning.separates) ways.push('through');
  return ways;
}

/** Adds an operation, for a test. @returns what takes it out again */
export function addOperation(name: string, definition: OperationDefinition): () => void {
  const added = name as BurntOperation;
  if (known.has(added)) throw new RangeError(`addOperation: “${name}” is there already`);
  const lists = definition.burning ? [names, burntNames] : [names];
  known.set(added, definition);
  for (const list of lists) list.push(added);
  return () => {
    known.delete(added);
    for (const list of lists) list.splice(list.indexOf(added), 1);
  };
}
