import { once } from 'node:events';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BegunSending,
  DeskPage,
  ErrorAnswer,
  JobSendingAnswer,
  MailsAnswer,
  MessageAnswer,
  QuoteAnswer,
  SendingAnswer,
} from '@lambent/contracts';
import { SMTPServer } from 'smtp-server';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

type Sent = Awaited<ReturnType<typeof sendIn>>;

/** Sends a drawing in. @returns the path of its sending, and its job */
async function sendIn(title: string, more: object = { mail: 'noor@castellan.example' }, shop = stack) {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M5 5h50v30h-50z" fill="none" stroke="#D0481E"/></svg>';
  const { body } = await shop.ask<BegunSending>('POST', '/api/drop-off?name=tag.svg', Buffer.from(svg));
  const link = `/api/drop-off/${body.token}`;
  const sent = await shop.ask<SendingAnswer>('POST', `${link}/send`, { name: 'Noor Castellan', title, ...more });
  expect(sent.status).toBe(201);
  const { jobs } = (await shop.ask<DeskPage>('GET', '/api/desk')).body;
  const id = jobs.find((job) => job.title === title)?.id ?? '';
  return { token: body.token, link, id, sent: sent.body.sent };
}
const ask = ({ id }: Sent, text: string) =>
  stack.ask<MessageAnswer[] & ErrorAnswer>('POST', `/api/jobs/${id}/messages`, { text, by: 'Ines Varga' });
const answer = ({ link }: Sent, text: string) =>
  stack.ask<MessageAnswer[] & ErrorAnswer>('POST', `${link}/messages`, { text });
const onDesk = async ({ id }: Sent, show = 'all') => {
  const { jobs, counts } = (await stack.ask<DeskPage>('GET', `/api/desk?show=${encodeURIComponent(show)}&size=500`))
    .body;
  return { card: jobs.find((job) => job.id === id), isCounted: counts['wants you'] };
};
const mailsOf = (shop = stack) => shop.ask<MailsAnswer>('GET', '/api/mails').then(({ body }) => body);
/** All mails that lie in the outbox, once every one that was written is there. */
async function outbox(shop = stack): Promise<string[]> {
  const { folder } = await shop.until<MailsAnswer>('/api/mails', ({ waiting }) => waiting === 0);
  if (folder === null || !existsSync(folder)) return [];
  const files = readdirSync(folder).filter((name) => name.endsWith('.eml'));
  return files.toSorted().map((name) => unfolded(readFileSync(join(folder, name), 'utf8')));
}
/** A mail as it is read: its long lines and encoded words put together. */
function unfolded(mail: string): string {
  const bytesOf = (text: string) =>
    text
      .replace(/=\r\n/g, '')
      .replace(/(?:=[0-9A-F]{2})+/g, (codes) => Buffer.from(codes.replaceAll('=', ''), 'hex').toString('utf8'));
  const words = mail.replace(/\r\n[ \t]/g, ' ').replace(/\?= =\?UTF-8\?Q\?/g, '');
  return bytesOf(words.replace(/=\?UTF-8\?Q\?(.*?)\?=/g, (_, text: string) => text.replaceAll('_', ' ')));
}

describe('the workshop and a sender', () => {
  test('write to each other, and the Desk says whose answer is waited for', async () => {
    const sent = await sendIn('Gull brooch');
    const before = await onDesk(sent, 'wants you');
    expect(before.card?.awaits).toBeNull();
    const { status, body } = await ask(sent, 'Cut the eye through?');
    expect(status).toBe(200);
    expect(body).toEqual([
      {
        id: expect.any(Number),
        at: expect.any(String),
        from: 'workshop',
        by: 'Ines Varga',
        kind: 'text',
        text: 'Cut the eye through?',
      },
    ]);
    const asked = await onDesk(sent);
    expect([asked.card?.awaits, asked.isCounted]).toEqual(['sender', before.isCounted - 1]);
    expect((await onDesk(sent, 'wants you')).card).toBeUndefined();

    expect((await stack.ask<MessageAnswer[]>('GET', `${sent.link}/messages`)).body).toEqual(body);
    const answered = await answer(sent, 'No, engrave it.');
    expect(answered.body.map(({ from, by, text }) => [from, by, text])).toEqual([
      ['workshop', 'Ines Varga', 'Cut the eye through?'],
      ['sender', 'Noor Castellan', 'No, engrave it.'],
    ]);
    expect((await onDesk(sent, 'wants you')).card?.awaits).toBe('workshop');
    expect((await stack.ask('DELETE', `/api/jobs/${sent.id}/awaits`)).status).toBe(204);
    expect((await onDesk(sent)).card?.awaits).toBeNull();
  });

  test('want an operator in whatever state the job is, until it is put away', async () => {
    const sent = await sendIn('Heron hook');
    for (const state of ['ready', 'burnt']) await stack.ask('PUT', `/api/jobs/${sent.id}/state`, { state });
    expect((await onDesk(sent, 'wants you')).card).toBeUndefined();
    await answer(sent, 'When may I fetch it?');
    expect((await onDesk(sent, 'wants you')).card?.state).toBe('burnt');
    await stack.ask('PUT', `/api/jobs/${sent.id}/state`, { state: 'handed over' });
    expect((await onDesk(sent)).card?.awaits).toBeNull();
  });

  test('are told what cannot be: nobody to read it, nothing said, too much unanswered, a link that is not theirs', async () => {
    const [{ id: own }] = (await stack.ask<DeskPage>('GET', '/api/desk?seek=plaque')).body.jobs;
    const alone = await stack.ask<ErrorAnswer>('POST', `/api/jobs/${own}/messages`, { text: 'Hello?' });
    expect([alone.status, alone.body.error.code]).toEqual([409, 'no-sender']);
    const sent = await sendIn('Tern tag');
    expect((await ask(sent, '')).status).toBe(400);
    expect((await ask(sent, 'x'.repeat(2001))).status).toBe(400);
    expect((await ask({ ...sent, id: 'none' }, 'Hello?')).status).toBe(404);
    const foreign = await answer({ ...sent, link: `/api/drop-off/${'A'.repeat(43)}` }, 'Let me in');
    expect(foreign.status).toBe(404);
    for (let i = 0; i < 20; i++) expect((await answer(sent, `More ${i}`)).status).toBe(200);
    expect((await answer(sent, 'Even more')).status).toBe(409);
    await ask(sent, 'One at a time, please.');
    expect((await answer(sent, 'Sorry')).status).toBe(200);

    await ask(sent, 'Are you still there?');
    await stack.ask('DELETE', sent.link);
    const [{ isOpen, mail }] = (await stack.ask<JobSendingAnswer[]>('GET', `/api/jobs/${sent.id}/sending`)).body;
    expect([isOpen, mail]).toEqual([false, 'noor@castellan.example']);
    expect((await ask(sent, 'Hello?')).body.error.code).toBe('no-sender');
  });

  test('leave no draft with messages', async () => {
    const { body } = await stack.ask<BegunSending>(
      'POST',
      '/api/drop-off?name=t.svg',
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm"><path d="M1 1h5" stroke="#D0481E"/></svg>',
      ),
    );
    const link = `/api/drop-off/${body.token}`;
    expect((await stack.ask('GET', `${link}/messages`)).body).toEqual([]);
    expect((await stack.ask('POST', `${link}/messages`, { text: 'Early' })).status).toBe(404);
  });
});

describe('mails', () => {
  test('tell a sender what happens, with the link once, and the workshop what wants it', async () => {
    const before = (await outbox()).length;
    const sent = await sendIn('Wren clip');
    await ask(sent, 'Which side is up?');
    await answer(sent, 'The one with the beak.');
    const [{ number }] = (
      await stack.ask<QuoteAnswer[]>('POST', `/api/jobs/${sent.id}/quotes`, {
        lines: [{ what: 'Cutting', amount: 9.1 }],
        validUntil: '2999-12-31',
        terms: '',
      })
    ).body;
    await stack.ask('POST', `${sent.link}/quotes/accepted`, { number });
    await stack.ask('PUT', `/api/jobs/${sent.id}/state`, { state: 'burnt' });
    const mails = (await outbox()).slice(before);
    const header = (mail: string, name: string) => new RegExp(`^${name}: (.*)\\r$`, 'm').exec(mail)?.[1];
    expect(mails.map((mail) => [header(mail, 'To'), header(mail, 'Subject')])).toEqual([
      ['noor@castellan.example', 'We have your drawing “Wren clip”'],
      ['workshop@ternlane.example', 'Came in: Wren clip'],
      ['noor@castellan.example', 'A message about “Wren clip”'],
      ['workshop@ternlane.example', 'A message about “Wren clip”'],
      ['noor@castellan.example', `Quote ${number} for “Wren clip”`],
      ['workshop@ternlane.example', `Yes to quote ${number}: Wren clip`],
      ['noor@castellan.example', '“Wren clip” can be fetched'],
    ]);
    expect(mails.filter((mail) => mail.includes(sent.token))).toEqual([mails[0]]);
    expect(mails[0]).toContain(`http://127.0.0.1:0/drop-off/${sent.token}`);
    expect(mails[2]).toContain('Which side is up?');
    expect(mails[4]).toContain('€ 9.10');
    expect(new Set(mails.map((mail) => header(mail, 'References'))).size).toBe(1);
    expect(new Set(mails.map((mail) => header(mail, 'Message-ID'))).size).toBe(7);
    expect(header(mails[0], 'From')).toBe('Tern Lane Workshop <workshop@ternlane.example>');
    // What was sent says nothing any more on the server.
    expect(JSON.stringify(await mailsOf())).not.toContain(sent.token);
  });

  test('go to nobody who left no address, or has withdrawn', async () => {
    const sent = await sendIn('Plain tag', {});
    expect(sent.sent?.mail).toBe('');
    const before = (await outbox()).length;
    await ask(sent, 'Hello?');
    expect(await outbox()).toHaveLength(before);
    const refused = await stack.ask<ErrorAnswer>('POST', `${sent.link}/send`, {
      name: 'N',
      title: 'T',
      mail: 'nobody',
    });
    expect([refused.status, refused.body.error.message]).toEqual([
      400,
      'That is no mail address. Leave it empty to follow it by its link alone.',
    ]);
  });

  test('take what was typed as text, never as headers, addresses or files', async () => {
    const before = (await outbox()).length;
    const title = 'Tag\r\nBcc: everybody@all.example\r\n\r\n<script>alert(1)</script>';
    const sent = await sendIn(title, { mail: 'noor@castellan.example', name: 'A <b@c.example>\r\nTo: d@e.example' });
    await answer(sent, '.\r\nQUIT\r\n.\r\n<img src=x onerror=alert(1)>');
    const mails = (await outbox()).slice(before);
    expect(mails).toHaveLength(3);
    for (const mail of mails) {
      const [headers] = mail.split('\r\n\r\n');
      expect(
        headers
          .split('\r\n')
          .map((line) => line.split(':')[0])
          .toSorted(),
      ).toEqual(
        [
          'Content-Transfer-Encoding',
          'Content-Type',
          'Date',
          'From',
          'MIME-Version',
          'Message-ID',
          'References',
          'Subject',
          'To',
        ].toSorted(),
      );
      expect(headers).toContain('Content-Type: text/plain');
    }
  });

  test('are written once the shop has an address, and no mail address is asked for before', async () => {
    await stack.ask('PUT', '/api/settings', { mailAddress: '' });
    expect((await stack.ask<{ writesMails: boolean }>('GET', '/api/drop-off')).body.writesMails).toBe(false);
    const before = (await outbox()).length;
    await sendIn('Silent tag');
    expect(await outbox()).toHaveLength(before);
    expect((await stack.ask('PUT', '/api/settings', { mailAddress: 'shop' })).status).toBe(400);
    await stack.ask('PUT', '/api/settings', { mailAddress: 'workshop@ternlane.example' });
    expect((await stack.ask<{ writesMails: boolean }>('GET', '/api/drop-off')).body.writesMails).toBe(true);
  });
});

describe('a mail server', () => {
  let shop: Stack | null = null;
  let server: SMTPServer | null = null;
  afterEach(async () => {
    await shop?.close();
    await new Promise<void>((resolve) => (server ? server.close(resolve) : resolve()));
  });

  test('takes the mails; what it does not take waits or is given up, is told, and can be tried again', async () => {
    const taken: string[] = [];
    let refuses = 0;
    server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      onRcptTo: (_address, _session, done) =>
        done(refuses ? Object.assign(new Error('No such person here'), { responseCode: refuses }) : null),
      onData: (stream, _session, done) => {
        const chunks: Buffer[] = [];
        stream.on('data', (chunk: Buffer) => chunks.push(chunk));
        stream.on('end', () => {
          taken.push(unfolded(Buffer.concat(chunks).toString('utf8')));
          done();
        });
      },
    });
    const listening = server.server;
    server.listen(0, '127.0.0.1');
    await once(listening, 'listening');
    const { port } = listening.address() as AddressInfo;
    shop = new Stack();
    await shop.start({ LAMBENT_SMTP: `smtp://127.0.0.1:${port}`, LAMBENT_ADDRESS: 'https://laser.example/' });
    const { token } = await sendIn('Kite tag', undefined, shop);
    await shop.until<MailsAnswer>('/api/mails', ({ waiting }) => waiting === 0);
    expect(taken).toHaveLength(2);
    expect(taken[0]).toContain(`https://laser.example/drop-off/${token}`);
    expect((await mailsOf(shop)).folder).toBeNull();

    refuses = 550;
    await sendIn('Rook tag', { mail: 'gone@castellan.example' }, shop);
    const over = await shop.until<MailsAnswer>('/api/mails', ({ givenUp }) => givenUp === 2);
    expect(over.mails[0]).toMatchObject({ state: 'given up', sentAt: null });
    expect(over.mails[0].trouble).toContain('No such person here');
    refuses = 450;
    const later = (await shop.ask<MailsAnswer>('POST', '/api/mails/again')).body;
    expect([later.waiting, later.givenUp, taken.length]).toEqual([2, 0, 2]);
    refuses = 0;
    const done = (await shop.ask<MailsAnswer>('POST', '/api/mails/again')).body;
    expect([done.waiting, done.givenUp, taken.length]).toEqual([0, 0, 4]);
    expect(done.mails.map(({ state }) => state)).toEqual(['sent', 'sent', 'sent', 'sent']);
  });
});
