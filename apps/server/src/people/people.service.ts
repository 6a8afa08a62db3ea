import {
  type ChangePersonDto,
  type InvitationAnswer,
  type JoinDto,
  type NewPasswordDto,
  type NewPersonDto,
  type PersonAnswer,
  type Role,
  roles,
  type SessionAnswer,
  type SignInDto,
} from '@lambent/contracts';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { concatMap, filter, type Observable, Subject, take } from 'rxjs';
import { IsNull, Not, Repository } from 'typeorm';
import { isCalledBy } from '../common/caller.ts';
import { isLoopback } from '../common/door.ts';
import { notFound, PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { mayCall } from './may-call.ts';
import { nameKeyOf } from './names.ts';
import { hashOfPassword, isPassword, noPassword } from './passwords.ts';
import { PersonEntity, SessionEntity } from './people.entities.ts';
import { SignInGate } from './sign-in-gate.ts';
import { hashOfToken, newToken, sessionMs, unsigned } from './tokens.ts';

/** So long somebody can join by an invitation. */
const invitationMs = 7 * 86_400_000;
/** That a session is in use is noted so often at most. */
const notedEveryMs = 3_600_000;

/** The people of the shop: who they are, what they may, and where they are signed in. */
@Injectable()
export class PeopleService {
  private readonly gate = new SignInGate();
  /** Whether the shop has a manager, once it was looked up. */
  private isManaged: boolean | null = null;
  /** The people of the demo, once they were looked up. */
  private demo: readonly PersonEntity[] | null = null;
  /** Somebody was signed out, has left, or has another role. */
  private readonly ended = new Subject<void>();

  constructor(
    @InjectRepository(PersonEntity) private readonly people: Repository<PersonEntity>,
    @InjectRepository(SessionEntity) private readonly sessions: Repository<SessionEntity>,
    private readonly writes: WriteQueue,
  ) {}

  /** All who are of the shop, or were, by their names. */
  async list(): Promise<PersonAnswer[]> {
    return (await this.people.find({ order: { nameKey: 'ASC' } })).map(answerOf);
  }

  /** @param token what the browser brought; null for none @returns the session with its person; null where nobody is signed in */
  async sessionOf(token: string | null): Promise<SessionEntity | null> {
    if (token === null) return null;
    const tokenHash = hashOfToken(token);
    const session = await this.sessions.findOne({ where: { tokenHash }, relations: { person: true } });
    const now = Date.now();
    if (!session || session.person.leftAt || now - session.usedAt.getTime() > sessionMs) return null;
    if (now - session.usedAt.getTime() > notedEveryMs) await this.writes.do('useSession', tokenHash, new Date(now));
    return session;
  }

  /** As `sessionOf`; in the demo, where nobody has signed in, it is its manager who is here. */
  async sessionHere(token: string | null): Promise<SessionEntity | null> {
    const session = await this.sessionOf(token);
    if (session) return session;
    const person = (await this.demoPeople()).find(({ role }) => role === 'manager');
    if (!person) return null;
    const now = new Date();
    return { tokenHash: unsigned, personId: person.id, person, startedAt: now, usedAt: now };
  }

  async answer(session: SessionEntity | null): Promise<SessionAnswer> {
    return {
      person: session && answerOf(session.person),
      hasManager: await this.hasManager(),
      demo: (await this.demoPeople()).map(answerOf),
    };
  }

  /** Adds the people of the demo, who have no passwords, to a shop that has none of its own. */
  async addDemoPeople(people: readonly { readonly name: string; readonly role: Role }[]): Promise<void> {
    await this.writes.do('addDemoPeople', people);
    this.forget();
  }

  /** Has it looked up anew who is of the shop. */
  forget(): void {
    this.isManaged = null;
    this.demo = null;
  }

  /** Signs in somebody of the demo. @returns the token @throws PlainError 404 where it is nobody of the demo */
  async beInDemo(personId: string, before: string | null): Promise<string> {
    if (!(await this.demoPeople()).some(({ id }) => id === personId)) throw notFound('person of the demo');
    return this.startSession(personId, before);
  }

  /** The people of the demo, whom only this computer reaches; none in another shop. */
  private async demoPeople(): Promise<readonly PersonEntity[]> {
    if (!isLoopback(config.host)) return [];
    this.demo ??= (await this.people.findBy({ passwordHash: noPassword })).toSorted(byRoleAndName);
    return this.demo;
  }

  /** Whether the shop has a manager: one that has none is open to everybody who can reach the server. */
  async hasManager(): Promise<boolean> {
    this.isManaged ??= await this.people.existsBy({ role: 'manager', leftAt: IsNull() });
    return this.isManaged;
  }

  /** Whether the shop has a manager who can sign in, which those of the demo cannot. */
  hasManagerWithPassword(): Promise<boolean> {
    return this.people.existsBy({ role: 'manager', leftAt: IsNull(), passwordHash: Not(noPassword) });
  }

  /** Says once that who brought a token may no longer do what somebody of a role may. */
  loses(token: string | null, role: Role): Observable<unknown> {
    const hasLost = async () => {
      const session = token === null ? await this.sessionHere(null) : await this.sessionOf(token);
      return !mayCall(session?.person.role ?? null, role);
    };
    return this.ended.pipe(
      concatMap(hasLost),
      filter((isIt) => isIt),
      take(1),
    );
  }

  /**
   * Signs somebody in.
   * @param before the token that the browser had: that session ends
   * @returns the token of the new session
   * @throws PlainError 401 where the name or the password is wrong, 429 where it is too soon to try again
   */
  async signIn({ name, password }: SignInDto, before: string | null): Promise<string> {
    const nameKey = nameKeyOf(name);
    const person = await this.people.findOneBy({ nameKey, leftAt: IsNull() });
    const isRight = await this.tryPassword(nameKey, person?.passwordHash || null, password);
    if (!isRight || !person) throw new PlainError(401, 'wrong-password', 'Nobody of this name has this password.');
    return this.startSession(person.id, before);
  }

  /** Makes the first manager, who is signed in at once. @returns the token @throws PlainError 409 where the shop has a manager */
  async addFirstManager(person: NewPersonDto, before: string | null): Promise<string> {
    const id = await this.writes.do('addFirstManager', await hashed(person));
    this.isManaged = true;
    this.ended.next();
    return this.startSession(id, before);
  }

  /** @throws PlainError 404 where the invitation is none, 409 where the name is taken @returns the token of who joined */
  async join({ token, ...person }: JoinDto, before: string | null): Promise<string> {
    const id = await this.writes.do('join', hashOfToken(token), await hashed(person), new Date());
    return this.startSession(id, before);
  }

  /** @param inviter the id of who invites */
  async invite(role: Role, inviter: string): Promise<InvitationAnswer> {
    const [token, validUntil] = [newToken(), new Date(Date.now() + invitationMs)];
    await this.writes.do('invite', hashOfToken(token), role, validUntil, inviter);
    return { token, role, validUntil: validUntil.toISOString() };
  }

  /** @throws PlainError 404 where there is none, 409 where the shop would have no manager */
  async change(id: string, change: ChangePersonDto): Promise<PersonAnswer> {
    await this.writes.do('changePerson', id, { ...change }, new Date());
    this.ended.next();
    const person = await this.people.findOneBy({ id });
    if (!person) throw notFound('person');
    return answerOf(person);
  }

  /** @throws PlainError 401 where the password that is to go is wrong, 429 where it is too soon to try again */
  async changePassword({ person, tokenHash }: SessionEntity, { current, next }: NewPasswordDto): Promise<void> {
    if (person.passwordHash === noPassword)
      throw new PlainError(409, 'no-password', 'People of the demo have no password. Nothing was changed.');
    if (!(await this.tryPassword(person.nameKey, person.passwordHash, current)))
      throw new PlainError(401, 'wrong-password', 'That is not your password now. Nothing was changed.');
    await this.writes.do('changePassword', person.id, await hashOfPassword(next), tokenHash);
    this.ended.next();
  }

  async signOut(token: string | null): Promise<void> {
    if (token === null) return;
    await this.writes.do('endSession', hashOfToken(token));
    this.ended.next();
  }

  /** Signs somebody out wherever they are signed in. */
  async signOutEverywhere({ personId }: SessionEntity): Promise<void> {
    await this.writes.do('endSessionsOf', personId, null);
    this.ended.next();
  }

  /** @param kept the hash of the password; null where nobody has that name @throws PlainError 429 where it is too soon to try again */
  private async tryPassword(nameKey: string, kept: string | null, password: string): Promise<boolean> {
    const waitS = Math.ceil(this.gate.waitFor(nameKey, Date.now()) / 1000);
    if (waitS > 0)
      throw new PlainError(429, 'wait', `The password was wrong too often. Wait ${waitS} s, and try again.`, { waitS });
    // It counts before it is known to be wrong: else many could be tried at once.
    this.gate.isWrong(nameKey, Date.now());
    const isRight = await isPassword(kept, password);
    if (isRight) this.gate.isRight(nameKey);
    return isRight;
  }

  private async startSession(personId: string, before: string | null): Promise<string> {
    const token = newToken();
    isCalledBy(personId);
    await this.writes.do('startSession', personId, hashOfToken(token), before && hashOfToken(before), new Date());
    return token;
  }
}

/** Whoever may most stands first. */
function byRoleAndName(a: PersonEntity, b: PersonEntity): number {
  return roles.indexOf(a.role) - roles.indexOf(b.role) || (a.nameKey < b.nameKey ? -1 : 1);
}

async function hashed({ name, password }: NewPersonDto): Promise<{ name: string; passwordHash: string }> {
  return { name, passwordHash: await hashOfPassword(password) };
}

function answerOf({ id, name, role, createdAt, leftAt }: PersonEntity): PersonAnswer {
  return { id, name, role, since: createdAt.toISOString(), leftAt: leftAt?.toISOString() ?? null };
}
