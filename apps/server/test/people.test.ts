import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BookChange,
  DeedAnswer,
  ErrorAnswer,
  InvitationAnswer,
  PersonAnswer,
  Role,
  SessionAnswer,
} from '@lambent/contracts';
import { roles } from '@lambent/contracts';
import Database from 'better-sqlite3';
import { type Caller, mayCall } from '../src/people/may-call.ts';
import { api } from './as-described.ts';
import { Stack } from './stack.ts';

/** A shop in which there is nothing yet, not even people: those of the demo would be there else. */
const stack = new Stack(undefined, '');
beforeAll(() => stack.start());
afterAll(() => stack.close());

/** A browser: it keeps the cookie that it was given last. */
class Browser {
  cookie = '';

  /** @returns the status, the answer, and what the cookie was given with */
  async ask<T = SessionAnswer>(method: string, path: string, body?: unknown) {
    const response = await fetch(stack.url + path, {
      method,
      headers: { 'Content-Type': 'application/json', ...(this.cookie ? { Cookie: this.cookie } : {}) },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
    const given = response.headers.getSetCookie().find((cookie) => cookie.startsWith('lambent-session='));
    if (given) this.cookie = given.split(';')[0];
    const text = await response.text();
    return { status: response.status, given: given ?? null, body: (text ? JSON.parse(text) : null) as T };
  }

  signIn(name: string, password: string) {
    return this.ask('POST', '/api/session', { name, password });
  }

  async name(): Promise<string | null> {
    return (await this.ask('GET', '/api/session')).body.person?.name ?? null;
  }
}

const ines = { name: 'Ines Varga', password: 'a heron on the slip' };
const pavel = { name: 'Pavel Anders', password: 'seeds in the signal box' };
const manager = new Browser();

/** Somebody new who joined by an invitation of the manager. */
async function joined(role: Role, person: typeof pavel): Promise<Browser> {
  const { body } = await manager.ask<InvitationAnswer>('POST', '/api/people/invitations', { role });
  const browser = new Browser();
  const { status } = await browser.ask('POST', '/api/people/join', { ...person, token: body.token });
  expect(status).toBe(201);
  return browser;
}

const idOf = async (name: string) =>
  (await manager.ask<PersonAnswer[]>('GET', '/api/people')).body.find((person) => person.name === name)?.id;

test('a shop without people has no manager; the first one is made once, and is signed in at once', async () => {
  expect((await manager.ask('GET', '/api/session')).body).toEqual({
    person: null,
    hasManager: false,
    demo: [],
  });
  const short = await manager.ask<ErrorAnswer>('POST', '/api/people/manager', { ...ines, password: 'too short' });
  expect([short.status, short.body.error.message]).toEqual([400, 'A password has 10 to 200 characters.']);
  const made = await manager.ask('POST', '/api/people/manager', ines);
  expect(made.status).toBe(201);
  expect(made.body).toMatchObject({ person: { name: 'Ines Varga', role: 'manager', leftAt: null }, hasManager: true });
  expect(made.given).toMatch(/HttpOnly/);
  expect(made.given).toMatch(/SameSite=Strict/);
  expect(await manager.name()).toBe('Ines Varga');
  const second = await new Browser().ask<ErrorAnswer>('POST', '/api/people/manager', pavel);
  expect([second.status, second.body.error.code]).toEqual([409, 'manager-there']);
});

test('every endpoint declares who may call it; a shop with a manager refuses all others', async () => {
  const operations = Object.entries(api.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, { 'x-may-call': caller }]) => ({
      method: method.toUpperCase(),
      path,
      caller,
    })),
  );
  expect(operations.length).toBeGreaterThan(80);
  const callers = [...roles, 'everybody'];
  expect(operations.filter(({ caller }) => !callers.includes(`${caller}`))).toEqual([]);
  const nobody = new Browser();
  const browsers = {
    operator: await joined('operator', { name: 'Walking operator', password: 'through every door' }),
    member: await joined('member', { name: 'Walking member', password: 'through every door' }),
  };
  for (const { method, path, caller } of operations) {
    const address = path.replace(/\{\w+\}/g, 'nothing');
    const ask = async (browser: Browser) =>
      (await browser.ask(method, address, method === 'GET' ? undefined : {})).status;
    const found: Record<string, number> = {};
    if (caller !== 'everybody') found.nobody = await ask(nobody);
    for (const role of ['member', 'operator'] as const)
      if (!mayCall(role, caller as Caller)) found[role] = await ask(browsers[role]);
    const wanted = Object.fromEntries(Object.keys(found).map((who) => [who, who === 'nobody' ? 401 : 403]));
    expect([method, path, found]).toEqual([method, path, wanted]);
  }
});

test('who may call an endpoint is let through', async () => {
  const operator = await joined('operator', { name: 'Let through', password: 'through every door' });
  for (const path of ['jobs', 'machines', 'materials', 'colour-keys', 'settings', 'runs', 'fonts', 'number-families'])
    expect([path, (await operator.ask('GET', `/api/${path}`)).status]).toEqual([path, 200]);
  for (const path of ['backups', 'machines/ports'])
    expect([path, (await manager.ask('GET', `/api/${path}`)).status]).toEqual([path, 200]);
  expect((await new Browser().ask('GET', '/api/health')).status).toBe(200);
});

test('what is done is signed by who is signed in, whatever name is sent', async () => {
  const operator = await joined('operator', { name: 'Signing operator', password: 'with my own name' });
  const material = { name: 'Offcut board', thicknessMm: 2, tone: '#C9A27C', sheetWidth: 300, sheetHeight: 200 };
  const added = await operator.ask<{ id: string }>('POST', '/api/materials', {
    by: 'Somebody else',
    material: { ...material, forbidden: null, recipes: [] },
  });
  expect(added.status).toBe(201);
  const { body: history } = await operator.ask<BookChange[]>('GET', `/api/materials/${added.body.id}/history`);
  expect(history[0]).toMatchObject({ by: 'Signing operator' });
  // The row is theirs too, and the record says what they did.
  const database = new Database(`${stack.data}/lambent.sqlite`, { readonly: true });
  const row = database.prepare('SELECT actor FROM materials WHERE id = ?').get(added.body.id);
  database.close();
  expect(row).toEqual({ actor: await idOf('Signing operator') });
  const { body: deeds } = await manager.ask<DeedAnswer[]>('GET', '/api/deeds');
  expect(deeds[0]).toMatchObject({
    by: 'Signing operator',
    what: 'addMaterial',
    subject: 'Offcut board',
    subjectId: added.body.id,
  });
  expect(deeds[1]).toMatchObject({ by: 'Signing operator', what: 'startSession', subject: 'Signing operator' });
});

test('neither passwords nor tokens are kept as they are', async () => {
  const database = new Database(`${stack.data}/lambent.sqlite`, { readonly: true });
  const kept = JSON.stringify(['people', 'sessions'].map((table) => database.prepare(`SELECT * FROM ${table}`).all()));
  database.close();
  expect(kept).toContain('$argon2id$v=19$m=19456,t=2,p=1$');
  expect(kept).not.toContain(ines.password);
  expect(kept).not.toContain(manager.cookie.split('=')[1]);
});

describe('signing in', () => {
  test('takes the name however it is written, and the very password', async () => {
    const browser = new Browser();
    expect((await browser.signIn('  ines  VARGA ', ines.password)).body.person?.name).toBe('Ines Varga');
    for (const [name, password] of [
      [ines.name, `${ines.password} `],
      [ines.name, ines.password.toUpperCase()],
      ['Nobody', ines.password],
    ]) {
      const { status, body, given } = await new Browser().signIn(name, password);
      expect([status, given, (body as unknown as ErrorAnswer).error]).toEqual([
        401,
        null,
        { code: 'wrong-password', message: 'Nobody of this name has this password.' },
      ]);
    }
  });

  test('gives a token of its own each time; one that was planted before is worth nothing, then and later', async () => {
    const browser = new Browser();
    browser.cookie = 'lambent-session=planted-by-somebody-else';
    expect(await browser.name()).toBeNull();
    await browser.signIn(ines.name, ines.password);
    expect(browser.cookie).not.toContain('planted');
    const first = browser.cookie;
    await browser.signIn(ines.name, ines.password);
    const old = new Browser();
    for (const cookie of [first, 'lambent-session=planted-by-somebody-else']) {
      old.cookie = cookie;
      expect(await old.name()).toBeNull();
    }
    expect(await browser.name()).toBe('Ines Varga');
  });

  test('too often with a wrong password has to wait, with the right one too, whether there is such a name or not', async () => {
    await joined('member', { name: 'Noor Castellan', password: 'tides and tables' });
    for (const name of ['Noor Castellan', 'Nobody at all']) {
      for (let i = 0; i < 6; i++) expect((await new Browser().signIn(name, `guess ${i}`)).status).toBe(401);
      const { status, body } = await new Browser().signIn(name.toUpperCase(), 'tides and tables');
      expect([name, status, (body as unknown as ErrorAnswer).error.code]).toEqual([name, 429, 'wait']);
    }
    // Others go in meanwhile.
    expect((await new Browser().signIn(ines.name, ines.password)).status).toBe(200);
  });

  test('tried many times at once is tried no more often', async () => {
    const tries = Array.from({ length: 20 }, (_, i) => new Browser().signIn('Several at once', `guess number ${i}`));
    const statuses = (await Promise.all(tries)).map(({ status }) => status);
    expect(statuses.filter((status) => status === 401).length).toBeLessThanOrEqual(6);
    expect(statuses.filter((status) => status === 429).length).toBeGreaterThanOrEqual(14);
  });

  test('ends by signing out, here or everywhere', async () => {
    const [here, there] = [new Browser(), new Browser()];
    for (const browser of [here, there]) await browser.signIn(ines.name, ines.password);
    const { cookie } = here;
    expect((await here.ask('DELETE', '/api/session')).status).toBe(204);
    here.cookie = cookie;
    expect([await here.name(), await there.name()]).toEqual([null, 'Ines Varga']);
    await here.signIn(ines.name, ines.password);
    expect((await here.ask('DELETE', '/api/session/everywhere')).status).toBe(204);
    expect([await there.name(), await manager.name()]).toEqual([null, null]);
    await manager.signIn(ines.name, ines.password);
  });
});

describe('people', () => {
  test('join by an invitation, once, with a name of their own', async () => {
    const { body: invitation } = await manager.ask<InvitationAnswer>('POST', '/api/people/invitations', {
      role: 'operator',
    });
    expect(new Date(invitation.validUntil).getTime()).toBeGreaterThan(Date.now() + 6 * 86_400_000);
    const browser = new Browser();
    const join = (person: object) =>
      browser.ask<SessionAnswer & ErrorAnswer>('POST', '/api/people/join', {
        ...pavel,
        token: invitation.token,
        ...person,
      });
    expect((await join({ token: `${invitation.token}x` })).status).toBe(404);
    const taken = await join({ name: 'INES  varga' });
    expect([taken.status, taken.body.error.message]).toEqual([
      409,
      'Somebody of the shop is called “INES  varga” already. Take another name.',
    ]);
    // What was refused used nothing up.
    expect((await join({})).body.person).toMatchObject({ name: 'Pavel Anders', role: 'operator' });
    expect((await join({ name: 'Somebody else' })).status).toBe(404);
  });

  test('do what their role may', async () => {
    const browsers: Record<Role | 'none', Browser> = {
      manager,
      operator: await joined('operator', { name: 'Tobiah Okonjo', password: 'kerf and clearance' }),
      member: await joined('member', { name: 'Wilhelmina Strand', password: 'a drawer of seeds' }),
      none: new Browser(),
    };
    const statuses = async (method: string, path: string, body?: unknown) =>
      Object.fromEntries(
        await Promise.all(
          Object.entries(browsers).map(async ([who, browser]) => [who, (await browser.ask(method, path, body)).status]),
        ),
      );
    expect(await statuses('GET', '/api/people')).toEqual({ manager: 200, operator: 200, member: 403, none: 401 });
    const invite = { role: 'member' };
    expect(await statuses('POST', '/api/people/invitations', invite)).toEqual({
      manager: 201,
      operator: 403,
      member: 403,
      none: 401,
    });
    expect(await statuses('PATCH', '/api/people/nobody', {})).toEqual({
      manager: 404,
      operator: 403,
      member: 403,
      none: 401,
    });
  });

  test('change their password: elsewhere they are signed out', async () => {
    const [here, there] = [new Browser(), new Browser()];
    for (const browser of [here, there]) await browser.signIn(pavel.name, pavel.password);
    const change = (current: string, next: string) => here.ask('PUT', '/api/session/password', { current, next });
    expect((await change('not this one', 'another long one')).status).toBe(401);
    expect((await change(pavel.password, 'short')).status).toBe(400);
    expect(await there.name()).toBe('Pavel Anders');
    expect((await change(pavel.password, 'another long one')).status).toBe(204);
    expect([await here.name(), await there.name()]).toEqual(['Pavel Anders', null]);
    expect((await there.signIn(pavel.name, pavel.password)).status).toBe(401);
    expect((await there.signIn(pavel.name, 'another long one')).status).toBe(200);
  });

  test('who has left is signed out and does not come in, until they are back', async () => {
    const person = { name: 'Somebody Passing', password: 'here for a summer' };
    const browser = await joined('operator', person);
    const id = await idOf(person.name);
    const leave = (hasLeft: boolean) => manager.ask<PersonAnswer>('PATCH', `/api/people/${id}`, { hasLeft });
    expect((await leave(true)).body.leftAt).toMatch(/^\d{4}-.*Z$/);
    expect(await browser.name()).toBeNull();
    expect((await browser.signIn(person.name, person.password)).status).toBe(401);
    expect((await leave(false)).body.leftAt).toBeNull();
    expect(await browser.name()).toBeNull();
    expect((await browser.signIn(person.name, person.password)).status).toBe(200);
  });

  test('the shop keeps a manager', async () => {
    const id = await idOf(ines.name);
    for (const change of [{ role: 'operator' }, { hasLeft: true }]) {
      const { status, body } = await manager.ask<ErrorAnswer>('PATCH', `/api/people/${id}`, change);
      expect([status, body.error.code]).toEqual([409, 'last-manager']);
    }
    expect(await manager.name()).toBe('Ines Varga');
    const other = await idOf('Tobiah Okonjo');
    expect((await manager.ask('PATCH', `/api/people/${other}`, { role: 'manager' })).status).toBe(200);
    expect((await manager.ask<PersonAnswer>('PATCH', `/api/people/${id}`, { role: 'operator' })).body.role).toBe(
      'operator',
    );
    // What one may changes at once.
    expect((await manager.ask('POST', '/api/people/invitations', { role: 'member' })).status).toBe(403);
  });

  test('another site’s page changes nothing', async () => {
    const response = await fetch(`${stack.url}/api/session`, {
      method: 'DELETE',
      headers: { Cookie: manager.cookie, Origin: 'http://elsewhere.example' },
    });
    expect(response.status).toBe(403);
    expect(await manager.name()).toBe('Ines Varga');
  });
});
