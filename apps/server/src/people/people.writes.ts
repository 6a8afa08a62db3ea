import { randomUUID } from 'node:crypto';
import type { Role } from '@lambent/contracts';
import { LessThan, Not } from 'typeorm';
import { notFound, PlainError } from '../common/plain-error.ts';
import type { Writing } from '../data/writing.ts';
import { nameKeyOf } from './names.ts';
import { noPassword } from './passwords.ts';
import { InvitationEntity, PersonEntity, SessionEntity } from './people.entities.ts';
import { sessionMs } from './tokens.ts';

/*
 * Every change of the people of the shop, and of where they are signed in.
 */

/** Somebody who comes. */
export interface NewPerson {
  readonly name: string;
  readonly passwordHash: string;
}

/** The first manager of the shop. @throws PlainError 409 where it has one @returns the id */
export async function addFirstManager(writing: Writing, person: NewPerson): Promise<string> {
  if (await writing.existsBy(PersonEntity, { role: 'manager' }))
    throw new PlainError(409, 'manager-there', 'The shop has a manager already, who invites others.');
  return addPerson(writing, person, 'manager');
}

/** Adds the people of the demo, who have no password, where nobody is of the shop yet. */
export async function addDemoPeople(
  writing: Writing,
  people: readonly { readonly name: string; readonly role: Role }[],
): Promise<void> {
  if ((await writing.count(PersonEntity)) > 0) return;
  for (const { name, role } of people) await addPerson(writing, { name, passwordHash: noPassword }, role);
}

/** Somebody joins by an invitation, which is used up. @throws PlainError 404 where it is none, 409 where the name is taken @returns the id */
export async function join(writing: Writing, tokenHash: string, person: NewPerson, now: Date): Promise<string> {
  const invitation = await writing.findOneBy(InvitationEntity, { tokenHash });
  if (!invitation || invitation.validUntil <= now)
    throw new PlainError(
      404,
      'no-invitation',
      'This invitation was used, taken back, or is too old. Ask for another one.',
    );
  await writing.delete(InvitationEntity, { tokenHash });
  return addPerson(writing, person, invitation.role);
}

async function addPerson(writing: Writing, { name, passwordHash }: NewPerson, role: Role): Promise<string> {
  const nameKey = nameKeyOf(name);
  if (await writing.existsBy(PersonEntity, { nameKey }))
    throw new PlainError(409, 'name-taken', `Somebody of the shop is called “${name}” already. Take another name.`);
  const id = randomUUID();
  await writing.insert(PersonEntity, { id, name: name.trim(), nameKey, role, passwordHash, leftAt: null });
  return id;
}

/** Keeps an invitation. @param inviter the id of who invites */
export async function invite(
  writing: Writing,
  tokenHash: string,
  role: Role,
  validUntil: Date,
  inviter: string,
): Promise<void> {
  await writing.insert(InvitationEntity, { tokenHash, role, validUntil, actor: inviter });
}

/** Signs somebody in; the session that the browser had ends, and so do those that nobody has used for long. */
export async function startSession(
  writing: Writing,
  personId: string,
  tokenHash: string,
  before: string | null,
  now: Date,
): Promise<void> {
  if (before !== null) await writing.delete(SessionEntity, { tokenHash: before });
  await writing.delete(SessionEntity, { usedAt: LessThan(new Date(now.getTime() - sessionMs)) });
  await writing.insert(SessionEntity, { tokenHash, personId, startedAt: now, usedAt: now });
}

/** Notes that a session is in use. */
export async function useSession(writing: Writing, tokenHash: string, now: Date): Promise<void> {
  await writing.update(SessionEntity, { tokenHash }, { usedAt: now });
}

/** Signs out where a session is. */
export async function endSession(writing: Writing, tokenHash: string): Promise<void> {
  await writing.delete(SessionEntity, { tokenHash });
}

/** Signs somebody out wherever they are signed in. @param but a session that goes on; null for none */
export async function endSessionsOf(writing: Writing, personId: string, but: string | null): Promise<void> {
  await writing.delete(SessionEntity, { personId, ...(but === null ? {} : { tokenHash: Not(but) }) });
}

/** Another password: whoever is signed in elsewhere by the one before is signed out. */
export async function changePassword(
  writing: Writing,
  personId: string,
  passwordHash: string,
  session: string,
): Promise<void> {
  await writing.update(PersonEntity, { id: personId }, { passwordHash });
  await endSessionsOf(writing, personId, session);
}

/**
 * Gives somebody another role, or notes that they have left or are back.
 * @throws PlainError 404 where there is none, 409 where the shop would have no manager
 */
export async function changePerson(
  writing: Writing,
  id: string,
  { role, hasLeft }: { readonly role?: Role; readonly hasLeft?: boolean },
  now: Date,
): Promise<void> {
  const person = await writing.findOneBy(PersonEntity, { id });
  if (!person) throw notFound('person');
  const leftAt = hasLeft === undefined ? person.leftAt : hasLeft ? (person.leftAt ?? now) : null;
  await writing.update(PersonEntity, { id }, { role: role ?? person.role, leftAt });
  const managers = await writing.find(PersonEntity, { where: { role: 'manager' } });
  if (!managers.some((manager) => manager.leftAt === null))
    throw new PlainError(409, 'last-manager', 'The shop needs a manager. Make somebody else one first.');
  if (leftAt !== null) await endSessionsOf(writing, id, null);
}
