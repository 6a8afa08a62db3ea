import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BegunSending,
  DeskPage,
  ErrorAnswer,
  JobAnswer,
  JobSendingAnswer,
  JobStepAnswer,
  MessageAnswer,
  QuoteAnswer,
  SendingAnswer,
} from '@lambent/contracts';
import { jobFromJson } from '@lambent/core/document';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const drawing = (more = '') =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"><g fill="none" stroke="#D0481E">` +
      `<rect x="10" y="10" width="100" height="50"/>${more}</g></svg>`,
  );
const [eye, slot] = ['<circle cx="60" cy="35" r="10"/>', '<rect x="20" y="20" width="30" height="4"/>'];

/** Sends a drawing with an eye in. @returns its link and its job */
async function sendIn(title: string) {
  const { body } = await stack.ask<BegunSending>('POST', '/api/drop-off?name=tag.svg', drawing(eye));
  const link = `/api/drop-off/${body.token}`;
  const words = { name: 'Noor Castellan', title, mail: 'noor@castellan.example' };
  expect((await stack.ask('POST', `${link}/send`, words)).status).toBe(201);
  const { jobs } = (await stack.ask<DeskPage>('GET', '/api/desk')).body;
  return { link, job: `/api/jobs/${jobs.find((job) => job.title === title)?.id}` };
}
type Sent = Awaited<ReturnType<typeof sendIn>>;

/** Begins a new file. @returns its answer, and the link of its draft */
async function begin({ link }: Sent, bytes: Buffer, name = 'tag 2.svg') {
  const { status, body } = await stack.ask<BegunSending & ErrorAnswer>(
    'POST',
    `${link}/files?name=${encodeURIComponent(name)}`,
    bytes,
  );
  return { status, body, draft: `/api/drop-off/${body.token}` };
}
const sendFile = async (sent: Sent, bytes: Buffer, name?: string) => {
  const { draft } = await begin(sent, bytes, name);
  expect((await stack.ask('POST', `${draft}/send-file`)).status).toBe(204);
};
const asked = async ({ job }: Sent) => (await stack.ask<JobSendingAnswer[]>('GET', `${job}/sending`)).body[0];
const follow = async ({ link }: Sent) => (await stack.ask<SendingAnswer>('GET', link)).body;
const messages = async ({ job }: Sent) =>
  (await stack.ask<MessageAnswer[]>('GET', `${job}/messages`)).body.map(({ from, kind, text }) => [from, kind, text]);
const decide = (how: 'taken' | 'left-out', { job }: Sent, id: string) =>
  stack.ask<ErrorAnswer>('POST', `${job}/new-file/${how}`, { id, by: 'Ines Varga' });
const lastState = async ({ job }: Sent) => (await stack.ask<JobStepAnswer[]>('GET', `${job}/steps`)).body[0].state;

describe('a new file for what was sent in', () => {
  test('shows what it changes before it is sent, and waits for the workshop; taken, it is the next version', async () => {
    const sent = await sendIn('Gate tag');
    const { status, body, draft } = await begin(sent, drawing(slot));
    expect(status).toBe(201);
    expect(body.difference).toEqual({ same: 1, otherwise: 0, gone: 1, added: 1 });
    expect((await stack.ask<string>('GET', `${draft}/difference.svg`)).body).toContain('stroke-dasharray');
    expect((await asked(sent)).newFile).toBeNull();

    expect((await stack.ask('POST', `${draft}/send-file`)).status).toBe(204);
    expect((await stack.ask('GET', draft)).status).toBe(404);
    expect((await follow(sent)).newFile).toMatchObject({ file: 'tag 2.svg' });
    const { newFile, file } = await asked(sent);
    expect([file, newFile?.file]).toEqual(['tag.svg', 'tag 2.svg']);
    expect(newFile?.difference).toEqual({ same: 1, otherwise: 0, gone: 1, added: 1 });
    expect((await stack.ask<string>('GET', `${sent.job}/new-file/difference.svg`)).body).toMatch(/^<svg/);
    const { jobs } = (await stack.ask<DeskPage>('GET', '/api/desk?show=wants%20you&size=500')).body;
    expect(jobs.find(({ title }) => title === 'Gate tag')?.awaits).toBe('workshop');

    expect((await decide('taken', sent, newFile?.id ?? '')).status).toBe(204);
    const after = await asked(sent);
    expect([after.file, after.newFile]).toEqual(['tag 2.svg', null]);
    expect(await follow(sent)).toMatchObject({ file: 'tag 2.svg', newFile: null, looks: 2 });
    const stored = (await stack.ask<JobAnswer>('GET', sent.job)).body;
    expect(stored.version).toBe(2);
    const { drawing: items, arrivals } = jobFromJson(stored.document);
    expect(items.items.map(({ shape }) => shape.kind)).toEqual(['rectangle', 'rectangle']);
    const original = await stack.ask<string>('GET', `${sent.job}/originals/${arrivals[0].originalId}`);
    expect(String(original.body)).toContain('width="30"');
    expect(await messages(sent)).toEqual([
      ['sender', 'file-sent', 'tag 2.svg'],
      ['workshop', 'file-taken', 'tag 2.svg'],
    ]);
    // What comes next is compared to what was taken.
    expect((await begin(sent, drawing(slot + eye))).body.difference).toMatchObject({ same: 2, gone: 0, added: 1 });
  });

  test('takes an open quote with it, and has a job that was ready prepared again; a yes holds', async () => {
    const sent = await sendIn('Kite tag');
    const quote = { lines: [{ what: 'Cutting', amount: 9.1 }], validUntil: '2999-12-31', terms: '' };
    await stack.ask('POST', `${sent.job}/quotes`, quote);
    await sendFile(sent, drawing(slot));
    await decide('taken', sent, (await asked(sent)).newFile?.id ?? '');
    expect(await lastState(sent)).toBe('being prepared');
    expect((await stack.ask<QuoteAnswer[]>('GET', `${sent.link}/quotes`)).body).toEqual([]);

    const [{ number }] = (await stack.ask<QuoteAnswer[]>('POST', `${sent.job}/quotes`, quote)).body;
    await stack.ask('POST', `${sent.link}/quotes/accepted`, { number });
    await sendFile(sent, drawing(eye));
    await decide('taken', sent, (await asked(sent)).newFile?.id ?? '');
    expect(await lastState(sent)).toBe('being prepared');
    expect((await stack.ask<QuoteAnswer[]>('GET', `${sent.link}/quotes`)).body[0].state).toBe('accepted');
  });

  test('is left out: the one before holds', async () => {
    const sent = await sendIn('Bench tag');
    await sendFile(sent, drawing());
    expect((await decide('left-out', sent, (await asked(sent)).newFile?.id ?? '')).status).toBe(204);
    expect(await asked(sent)).toMatchObject({ file: 'tag.svg', newFile: null });
    expect((await stack.ask<JobAnswer>('GET', sent.job)).body.version).toBe(1);
    expect((await messages(sent)).at(-1)).toEqual(['workshop', 'file-left-out', 'tag 2.svg']);
  });

  test('that was sent anew, or withdrawn, is not taken unseen', async () => {
    const sent = await sendIn('Drawer tag');
    await sendFile(sent, drawing(slot));
    const seen = (await asked(sent)).newFile?.id ?? '';
    await sendFile(sent, drawing(), 'tag 3.svg');
    const { status, body } = await decide('taken', sent, seen);
    expect([status, body.error.code]).toEqual([409, 'file-changed']);
    expect((await decide('left-out', sent, seen)).status).toBe(409);
    expect((await asked(sent)).newFile?.file).toBe('tag 3.svg');
    await stack.ask('DELETE', sent.link);
    expect((await asked(sent)).newFile).toBeNull();
    expect((await decide('taken', sent, seen)).status).toBe(404);
  });

  test('comes too late once its job is on a machine, burnt or put away', async () => {
    const sent = await sendIn('Late tag');
    const { draft } = await begin(sent, drawing(slot));
    await sendFile(sent, drawing());
    const waiting = (await asked(sent)).newFile?.id ?? '';
    await stack.ask('PUT', `${sent.job}/state`, { state: 'burnt' });
    expect((await begin(sent, drawing())).body.error.code).toBe('no-new-file');
    expect((await stack.ask<ErrorAnswer>('POST', `${draft}/send-file`)).status).toBe(409);
    expect((await decide('taken', sent, waiting)).body.error.code).toBe('no-new-file');
    expect((await decide('left-out', sent, waiting)).status).toBe(204);
  });

  test('is no sending of its own, and what cannot be read leaves all as it was', async () => {
    const sent = await sendIn('Own tag');
    const { draft } = await begin(sent, drawing(slot));
    const alone = await stack.ask<ErrorAnswer>('POST', `${draft}/send`, { name: 'Noor', title: 'Another' });
    expect([alone.status, alone.body.error.code]).toEqual([409, 'new-file']);
    expect((await stack.ask('POST', `${sent.link}/send-file`)).status).toBe(404);
    expect((await stack.ask('GET', `${sent.link}/difference.svg`)).status).toBe(404);
    const broken = await begin(sent, Buffer.from('no drawing at all'));
    expect(broken.status).toBe(415);
    expect(broken.body.error.message).toContain('tag 2.svg');
    expect((await begin({ ...sent, link: `/api/drop-off/${'A'.repeat(43)}` }, drawing())).status).toBe(404);
    // A draft of a new file begins no new file of its own.
    expect((await begin({ ...sent, link: draft }, drawing())).status).toBe(409);
  });
});
