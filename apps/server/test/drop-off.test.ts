import { request } from 'node:http';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BegunSending,
  DropOffAnswer,
  ErrorAnswer,
  JobAnswer,
  JobCard,
  JobSendingAnswer,
  SendingAnswer,
  SendingWishDto,
} from '@lambent/contracts';
import { bytesOfMb, mostSendingMb } from '@lambent/contracts';
import { jobFromJson } from '@lambent/core/document';
import Database from 'better-sqlite3';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

/** A drawing 100 mm wide: an outline in the key's red, and one in a blue that it does not know. */
const drawing = (more = '') =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"><g fill="none" stroke-width="0.2">` +
      `<rect x="10" y="10" width="100" height="50" stroke="#D0481E"/>` +
      `<circle cx="60" cy="35" r="10" stroke="#1C7ED6"/>${more}</g></svg>`,
  );
const leave = (bytes: Buffer, name = 'kite-winder.svg') =>
  stack.ask<BegunSending & ErrorAnswer>('POST', `/api/drop-off?name=${encodeURIComponent(name)}`, bytes);
const begun = async (bytes = drawing()) => {
  const { status, body } = await leave(bytes);
  expect([status, body.error]).toEqual([201, undefined]);
  return body;
};
const wish = ({ token, wish: before }: BegunSending, change: Partial<SendingWishDto>) =>
  stack.ask<SendingAnswer & ErrorAnswer>('PUT', `/api/drop-off/${token}/wish`, { ...before, ...change });
const blue = { part: 'stroke' as const, colour: '#1C7ED6', widthMm: 0.2 };
const words = { name: 'Noor Castellan', title: 'Kite winder', notes: 'In a hurry.', wantedBy: '2026-12-24' };
const cards = async () => (await stack.ask<JobCard[]>('GET', '/api/jobs')).body;

test('what anybody may know of the shop is its name, what it burns on, and how large', async () => {
  const { body } = await stack.ask<DropOffAnswer>('GET', '/api/drop-off');
  expect(body).toMatchObject({ shopName: 'Tern Lane Workshop', currency: '€', bed: { width: 1000, height: 700 } });
  expect(body.materials[0]).toEqual({
    id: 'birch-ply-3',
    name: 'Birch plywood',
    thicknessMm: 3,
    sheetWidth: 420,
    sheetHeight: 360,
    leastWallMm: 0.8,
    leastLetterMm: 1.8,
    tone: expect.stringMatching(/^#/),
  });
});

describe('a drawing that is left', () => {
  test('is read, laid on a sheet, checked, timed and priced; a colour that means nothing is asked for', async () => {
    const { look, file, sent, job } = await begun();
    expect({ file, sent, job }).toEqual({ file: 'kite-winder.svg', sent: null, job: null });
    expect(look).toMatchObject({ format: 'svg', pages: 1, widthMm: 100, heightMm: 50, saysSize: true });
    expect(look.paints).toEqual([
      { part: 'stroke', colour: '#D0481E', widthMm: 0.2, items: 1, operation: 'cut', answer: null },
      { ...blue, items: 1, operation: null, answer: 'workshop' },
    ]);
    expect(look.findings.map(({ code, level }) => [code, level])).toEqual([['colour-without-meaning', 'blocks']]);
    expect(look.findings[0].message).toContain('#1C7ED6');
    expect(look.seconds).toBeGreaterThan(10);
    expect(look.price?.total).toBeGreaterThan(0);
    expect(await cards()).toHaveLength(7);
  });

  test('is made as its sender says: what is meant, how wide, how many, of what', async () => {
    const sending = await begun();
    const { body: cut } = await wish(sending, { answers: [{ ...blue, answer: 'cut' }] });
    expect(cut.look.paints[1]).toMatchObject({ operation: 'cut', answer: 'cut' });
    expect(cut.look.findings).toEqual([]);
    expect(cut.look.seconds).toBeGreaterThan(sending.look.seconds ?? 0);
    expect(cut.looks).toBe(2);
    const { body: note } = await wish(sending, { answers: [{ ...blue, answer: 'note' }] });
    expect(note.look.paints[1]).toMatchObject({ operation: 'note', answer: 'note' });
    expect(note.look.seconds).toBeCloseTo(sending.look.seconds ?? 0, 6);
    const { body: wide } = await wish(sending, { widthMm: 200 });
    expect([wide.look.widthMm, wide.look.heightMm]).toEqual([200, 100]);
    const { body: three } = await wish(sending, { copies: 3 });
    expect(three.look.seconds).toBeCloseTo(3 * (sending.look.seconds ?? 0), 6);
    // Few are within the shop's least price.
    const { body: many } = await wish(sending, { copies: 60 });
    expect(many.look.price?.total).toBeGreaterThan(4 * (sending.look.price?.total ?? 0));
    const { body: own } = await wish(sending, { materialId: '', ownStock: 'A plank of larch' });
    expect([own.look.seconds, own.look.price]).toEqual([null, null]);
    const { body: large } = await wish(sending, { widthMm: 3000 });
    expect(large.look.findings.map(({ code }) => code)).toContain('off-bed');
  });

  test('shows a picture that holds nothing of the file but its lines', async () => {
    const { token } = await begun(
      drawing(
        '<script>alert(1)</script><a href="javascript:alert(2)"><rect width="9" height="9" stroke="#D0481E"/></a>',
      ),
    );
    const response = await fetch(`${stack.url}/api/drop-off/${token}/picture.svg`);
    expect(response.headers.get('content-type')).toMatch(/^image\/svg\+xml/);
    expect(response.headers.get('content-security-policy')).toContain("default-src 'self'");
    const text = await response.text();
    expect(text).toMatch(/^<svg/);
    expect(text).not.toMatch(/script|href|alert/);
  });

  test.each([
    ['nothing that is a drawing', Buffer.from('no drawing at all'), 415],
    [
      'a drawing with nothing in it',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="10mm" height="10mm"/>'),
      422,
    ],
    ['a file that breaks off', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><rect'), 422],
    ['a compressed file that would fill the memory', gzipSync(Buffer.alloc(300_000_000, '<g>')), 422],
    ['a file that is too large', Buffer.alloc(bytesOfMb(10) + 1, ' '), 413],
    ['a file larger than any shop takes', Buffer.alloc(bytesOfMb(mostSendingMb) + 1, ' '), 413],
    ['an empty file', Buffer.alloc(0), 400],
  ])('%s is refused with a sentence, and kept nowhere', async (_, bytes, status) => {
    const { status: answered, body } = await leave(bytes, 'odd.svg');
    expect([answered, body.error.message.length > 10]).toEqual([status, true]);
    const database = new Database(`${stack.data}/lambent.sqlite`, { readonly: true });
    expect(database.prepare("SELECT count(*) AS n FROM sendings WHERE file = 'odd.svg'").get()).toEqual({ n: 0 });
    database.close();
  });

  test('of a gigabyte is refused before it is there', async () => {
    const { hostname, port } = new URL(stack.url);
    const status = await new Promise<number | undefined>((resolve, reject) => {
      const sent = request(
        { hostname, port, method: 'POST', path: '/api/drop-off?name=huge.svg', headers: { 'Content-Length': 2 ** 30 } },
        (answer) => {
          resolve(answer.statusCode);
          sent.destroy();
        },
      );
      sent.on('error', reject);
      sent.write(' ');
    });
    expect(status).toBe(413);
  });
});

describe('sent in, it', () => {
  test('is a job that came in, as its sender saw it, with the file beside it', async () => {
    const sending = await begun();
    const { body: seen } = await wish(sending, { answers: [{ ...blue, answer: 'score' }], copies: 2 });
    const { status, body } = await stack.ask<SendingAnswer>('POST', `/api/drop-off/${sending.token}/send`, words);
    expect(status).toBe(201);
    expect(body).toMatchObject({ sent: { ...words }, job: { state: 'came in' }, look: seen.look });
    const card = (await cards()).find(({ title }) => title === 'Kite winder');
    expect(card).toMatchObject({ whose: 'Noor Castellan', state: 'came in', wantedBy: '2026-12-24', itemCount: 2 });
    const { body: job } = await stack.ask<JobAnswer>('GET', `/api/jobs/${card?.id}`);
    const { assignments, arrivals, sheets } = jobFromJson(job.document);
    expect(assignments).toMatchObject([{ ...blue, layerId: expect.any(String) }]);
    expect(sheets[0].materialId).toBe('birch-ply-3');
    const original = await fetch(`${stack.url}/api/jobs/${card?.id}/originals/${arrivals[0].originalId}`);
    expect(Buffer.from(await original.arrayBuffer())).toEqual(drawing());
    expect((await stack.ask<JobSendingAnswer[]>('GET', `/api/jobs/${card?.id}/sending`)).body).toMatchObject([
      {
        name: 'Noor Castellan',
        notes: 'In a hurry.',
        copies: 2,
        file: 'kite-winder.svg',
      },
    ]);
    // It is sent in once, and not changed afterwards.
    expect((await stack.ask('POST', `/api/drop-off/${sending.token}/send`, words)).status).toBe(409);
    expect((await wish(sending, { copies: 5 })).status).toBe(409);
    // Its link says how it goes on.
    await stack.ask('PUT', `/api/jobs/${card?.id}/state`, { state: 'ready' });
    const { body: later } = await stack.ask<SendingAnswer>('GET', `/api/drop-off/${sending.token}`);
    expect(later.job?.state).toBe('ready');
  });

  test('needs a name and a title', async () => {
    const { token } = await begun();
    const send = (change: object) =>
      stack.ask<ErrorAnswer>('POST', `/api/drop-off/${token}/send`, { ...words, ...change });
    expect((await send({ name: '' })).body.error.message).toBe('Say your name, in 1 to 120 characters.');
    expect((await send({ title: '' })).body.error.message).toBe('Say what to call it, in 1 to 120 characters.');
    expect((await send({ wantedBy: 'soon' })).body.error.message).toBe('A day is written as 2026-12-24.');
  });

  test('names with marks of other languages in them are words, here as everywhere', async () => {
    const { token } = await begun();
    const odd = { ...words, name: `<img src=x onerror="alert(1)">`, title: `'); DROP TABLE jobs; --` };
    expect((await stack.ask('POST', `/api/drop-off/${token}/send`, odd)).status).toBe(201);
    expect((await cards()).find(({ title }) => title === odd.title)).toMatchObject({ whose: odd.name });
  });

  test('is withdrawn: its link leads nowhere, its job is put away; one that was begun stays', async () => {
    for (const [state, left] of [
      [null, 'put away'],
      ['being prepared', 'being prepared'],
    ] as const) {
      const { token } = await begun();
      const title = `Withdrawn, ${state}`;
      await stack.ask('POST', `/api/drop-off/${token}/send`, { ...words, title });
      const { id } = (await cards()).find((card) => card.title === title) as JobCard;
      if (state) await stack.ask('PUT', `/api/jobs/${id}/state`, { state });
      expect((await stack.ask('DELETE', `/api/drop-off/${token}`)).status).toBe(204);
      expect((await stack.ask('GET', `/api/drop-off/${token}`)).status).toBe(404);
      const found = await stack.ask<{ jobs: JobCard[] }>(
        'GET',
        `/api/desk?show=${encodeURIComponent(left)}&seek=withdrawn`,
      );
      expect(found.body.jobs.map((card) => card.id)).toContain(id);
    }
  });
});

test('a link is nothing that is guessed or read in the database, and opens one sending alone', async () => {
  const [mine, other] = [await begun(), await begun()];
  expect(mine.token).toMatch(/^[\w-]{43}$/);
  const database = new Database(`${stack.data}/lambent.sqlite`, { readonly: true });
  const rows = database.prepare('SELECT * FROM sendings').all() as { id: string; tokenHash: string }[];
  database.close();
  expect(JSON.stringify(rows)).not.toContain(mine.token);
  for (const guess of [rows[0].id, rows[0].tokenHash, `${mine.token.slice(0, -1)}x`, '', '..', '%00'])
    expect([guess, (await fetch(`${stack.url}/api/drop-off/${guess}/picture.svg`)).ok]).toEqual([guess, false]);
  await stack.ask('DELETE', `/api/drop-off/${mine.token}`);
  expect((await stack.ask('GET', `/api/drop-off/${other.token}`)).status).toBe(200);
});

describe('how to draw for the shop', () => {
  test('is told by its key and its book', async () => {
    const { body } = await stack.ask<DropOffAnswer>('GET', '/api/drop-off');
    expect(body.rules[0]).toEqual({
      part: 'stroke',
      colour: '#D0481E',
      minWidthMm: null,
      maxWidthMm: null,
      operation: 'cut',
    });
    expect(body.marginMm).toBe(3);
    const birch = body.materials.find(({ id }) => id === 'birch-ply-3');
    expect(birch?.sheetWidth).toBeGreaterThan(100);
  });

  test('comes as a page to draw on; what is drawn on it is all that counts, and the page itself is nothing', async () => {
    const response = await fetch(`${stack.url}/api/drop-off/template.svg`);
    expect([response.status, response.headers.get('content-disposition')]).toEqual([
      200,
      'attachment; filename="template.svg"',
    ]);
    const page = await response.text();
    const drawn = page.replace(
      '</svg>',
      '<rect x="300" y="200" width="80" height="30" fill="none" stroke="#D0481E"/></svg>',
    );
    const { status, body } = await stack.ask<BegunSending>(
      'POST',
      '/api/drop-off?name=on-template.svg',
      Buffer.from(drawn),
    );
    expect(status).toBe(201);
    expect([body.look.widthMm, body.look.heightMm]).toEqual([80, 30]);
    expect(body.look.paints.map(({ operation }) => operation)).toEqual(['cut']);
    const empty = await stack.ask<ErrorAnswer>('POST', '/api/drop-off?name=empty.svg', Buffer.from(page));
    expect([empty.status, empty.body.error.message]).toEqual([422, 'empty.svg: nothing is drawn in it.']);

    const pdf = await fetch(`${stack.url}/api/drop-off/template.pdf`);
    expect([pdf.status, pdf.headers.get('content-type')]).toEqual([200, 'application/pdf']);
    const bytes = Buffer.from(await pdf.arrayBuffer());
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    expect((await stack.ask('POST', '/api/drop-off?name=empty.pdf', bytes)).status).toBe(422);
  });
});

test('a file is as large as the shop says at most, and no shop says more than 25 MB', async () => {
  const large = Buffer.concat([drawing(), Buffer.alloc(bytesOfMb(1), ' ')]);
  const settle = (sendingMb: number) => stack.ask<ErrorAnswer>('PUT', '/api/settings', { sendingMb });
  expect((await settle(1)).status).toBe(200);
  expect((await stack.ask<DropOffAnswer>('GET', '/api/drop-off')).body.largestMb).toBe(1);
  const { status, body } = await leave(large);
  expect([status, body.error.message]).toEqual([413, 'A file has 1 MB at most.']);
  const sending = await begun();
  await stack.ask('POST', `/api/drop-off/${sending.token}/send`, words);
  expect((await stack.ask('POST', `/api/drop-off/${sending.token}/files?name=a.svg`, large)).status).toBe(413);
  await settle(2);
  expect((await leave(large)).status).toBe(201);
  for (const wrong of [0, 26, 1.5]) expect((await settle(wrong)).status).toBe(400);
  await settle(10);
});
