import { randomUUID } from 'node:crypto';
import { familyFromJson, type NumberFamily } from '@lambent/core/builders';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { NumberFamilyEntity } from './number-family.entity.ts';

/*
 * Every change of the families of numbers. What is none is refused with NotAFamily.
 */

/** Keeps numbers under a name. @throws NotAFamily; PlainError 409 where its builder has numbers of that name */
export async function addFamily(writing: Writing, json: Record<string, unknown>): Promise<NumberFamily> {
  const family = familyFromJson(json, randomUUID());
  const { builder, name } = family;
  if (await writing.existsBy(NumberFamilyEntity, { builder, name })) {
    throw new PlainError(409, 'family-there', `Numbers are kept as “${name}” already. Take another name.`);
  }
  await writing.insert(NumberFamilyEntity, { ...family });
  return family;
}

/** @throws PlainError 404 where there is none */
export async function deleteFamily(writing: Writing, id: string): Promise<void> {
  const { affected } = await writing.delete(NumberFamilyEntity, { id });
  if (!affected) throw notFound('family of numbers');
}
