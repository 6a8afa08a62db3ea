import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BegunSending,
  DeskPage,
  ErrorAnswer,
  JobCard,
  QuoteAnswer,
  QuoteDraft,
  SendingAnswer,
} from '@lambent/contracts';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(async () => {
  await stack.start();
  await stack.ask('PUT', '/api/settings', { quoteDays: 10, quoteTerms: 'Payable when it is fetched.' });
});
afterAll(() => stack.close());

const card = async (title: string): Promise<JobCard> => {
  const { jobs } = (await stack.ask<DeskPage>('GET', `/api/desk?seek=${encodeURIComponent(title)}`)).body;
  return jobs[0];
};
const draftOf = async (id: string) => (await stack.ask<QuoteDraft>('GET', `/api/jobs/${id}/quote-draft`)).body;
const make = (id: string, quote: Partial<QuoteDraft> = {}) =>
  stack.ask<QuoteAnswer[] & ErrorAnswer>('POST', `/api/jobs/${id}/quotes`, {
    lines: [
      { what: 'Cutting', amount: 9.1 },
      { what: 'Friend of the house', amount: -0.35 },
    ],
    validUntil: '2999-12-31',
    terms: '',
    by: 'Ines Varga',
    ...quote,
  });
const accept = (id: string, number: number) =>
  stack.ask<QuoteAnswer[] & ErrorAnswer>('POST', `/api/jobs/${id}/quotes/accepted`, { number, by: 'Tobiah Okonjo' });

/** Sends a drawing in. @returns the path of its sending, and its job */
async function sendIn(title: string): Promise<{ link: string; id: string }> {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M5 5h50v30h-50z" fill="none" stroke="#D0481E"/></svg>';
  const { body } = await stack.ask<BegunSending>('POST', '/api/drop-off?name=tag.svg', Buffer.from(svg));
  const link = `/api/drop-off/${body.token}`;
  await stack.ask('POST', `${link}/send`, { name: 'Noor Castellan', title });
  return { link, id: (await card(title)).id };
}

test('a quote begins with the price of the job in its parts, the shop’s terms and its days', async () => {
  const { id } = await card('Volunteer badges');
  const { lines, validUntil, terms } = await draftOf(id);
  const known = await stack.until<DeskPage>('/api/desk?seek=volunteer', ({ jobs }) => jobs[0].estimate !== null);
  expect(lines.length).toBeGreaterThan(2);
  const total = lines.reduce((sum, { amount }) => sum + Math.round(amount * 100), 0) / 100;
  expect(total).toBeCloseTo(known.jobs[0].estimate?.price ?? 0, 6);
  expect(terms).toBe('Payable when it is fetched.');
  const days = (Date.parse(validUntil) - Date.now()) / 86_400_000;
  expect(days).toBeGreaterThan(8);
  expect(days).toBeLessThan(11);
});

describe('a quote', () => {
  test('is numbered, adds up, and has its job wait for a yes', async () => {
    const { id } = await card('Bench plaque');
    const { status, body } = await make(id);
    expect(status).toBe(200);
    expect(body).toMatchObject([
      { title: 'Bench plaque', total: 8.75, currency: '€', by: 'Ines Varga', state: 'open' },
    ]);
    expect((await card('Bench plaque')).state).toBe('quoted');
    const [second, first] = (await make(id, { lines: [{ what: 'Engraving', amount: 12 }] })).body;
    expect([second.number, second.state, first.state]).toEqual([first.number + 1, 'open', 'withdrawn']);
  });

  test('that is accepted makes its job ready, and its price holds whatever the price list says later', async () => {
    const { id } = await card('Bench plaque');
    const [{ number }] = (await stack.ask<QuoteAnswer[]>('GET', `/api/jobs/${id}/quotes`)).body;
    const [accepted] = (await accept(id, number)).body;
    expect(accepted).toMatchObject({ state: 'accepted', acceptedBy: 'Tobiah Okonjo', total: 12 });
    const known = await stack.until<DeskPage>('/api/desk?seek=plaque', ({ jobs }) => jobs[0].estimate !== null);
    expect(known.jobs[0]).toMatchObject({ state: 'ready', estimate: { price: 12 } });
    const again = await accept(id, number);
    expect([again.status, again.body.error.message]).toEqual([
      409,
      `Quote ${number} was accepted already. Look at how it stands now.`,
    ]);
    const withdrawn = await stack.ask<ErrorAnswer>('POST', `/api/jobs/${id}/quotes/withdrawn`, { number });
    expect([withdrawn.status, withdrawn.body.error.code]).toEqual([409, 'quote-accepted']);
    // Another one takes its place: until it is accepted the job has the price of the list.
    await make(id);
    expect((await card('Bench plaque')).estimate?.price).not.toBe(12);
  });

  test('that was withdrawn, or is past its day, or is of another job, is not accepted', async () => {
    const { id } = await card('Seed packet');
    const [{ number }] = (await make(id)).body;
    expect((await stack.ask('POST', `/api/jobs/${id}/quotes/withdrawn`, { number })).status).toBe(200);
    expect((await card('Seed packet')).state).toBe('being prepared');
    expect((await accept(id, number)).body.error.message).toContain('was withdrawn by the workshop');
    const [old] = (await make(id, { validUntil: '2026-01-01' })).body;
    expect(old.state).toBe('expired');
    expect((await accept(id, old.number)).body.error.message).toContain('could be accepted until 2026-01-01');
    const other = await card('Estuary relief');
    expect((await accept(other.id, old.number)).status).toBe(404);
    expect((await accept(id, 4711)).status).toBe(404);
  });

  test('of a job that is burnt already moves it nowhere, when it is made or accepted', async () => {
    const { id } = await card('Kingfisher');
    await stack.ask('PUT', `/api/jobs/${id}/state`, { state: 'burnt' });
    const [{ number }] = (await make(id)).body;
    expect((await card('Kingfisher')).state).toBe('burnt');
    expect((await accept(id, number)).body[0].state).toBe('accepted');
    expect((await card('Kingfisher')).state).toBe('burnt');
  });

  test('is refused with a sentence where it says nothing, or too much', async () => {
    const { id } = await card('Seed packet');
    const refused = async (quote: Partial<QuoteDraft>) => (await make(id, quote)).body.error.message;
    expect(await refused({ lines: [] })).toBe('A quote has a line at least.');
    expect(await refused({ lines: [{ what: '', amount: 1 }] })).toContain('says what it is for');
    expect(await refused({ lines: [{ what: 'x', amount: 1.234 }] })).toContain('An amount has two decimals.');
    expect(await refused({ validUntil: 'soon' })).toBe('A day is written as 2026-12-24.');
    expect((await make('nowhere')).status).toBe(404);
    const { body: settings } = await stack.ask<{ pricing: object }>('GET', '/api/settings');
    await stack.ask('PUT', '/api/settings', { pricing: { ...settings.pricing, currency: '' } });
    expect(await refused({})).toBe('The shop has no currency yet. Say on its page what it charges in.');
    await stack.ask('PUT', '/api/settings', { pricing: settings.pricing });
  });
});

test('who sent the drawing sees what it is offered for, and says yes by their link alone', async () => {
  const { link, id } = await sendIn('A tag with a price');
  expect((await stack.ask<QuoteAnswer[]>('GET', `${link}/quotes`)).body).toEqual([]);
  await make(id, { lines: [{ what: 'Too much', amount: 99 }] });
  const [{ number }] = (await make(id)).body;
  const seen = (await stack.ask<QuoteAnswer[]>('GET', `${link}/quotes`)).body;
  expect(seen.map((quote) => [quote.number, quote.total])).toEqual([[number, 8.75]]);

  const other = await sendIn('Another one’s tag');
  const stolen = await stack.ask('POST', `${other.link}/quotes/accepted`, { number });
  expect(stolen.status).toBe(404);
  expect((await stack.ask('POST', '/api/drop-off/guessed/quotes/accepted', { number })).status).toBe(404);

  const yes = await stack.ask<QuoteAnswer[]>('POST', `${link}/quotes/accepted`, { number });
  expect(yes.body[0]).toMatchObject({ state: 'accepted', acceptedBy: 'Noor Castellan' });
  expect((await stack.ask<SendingAnswer>('GET', link)).body.job?.state).toBe('ready');
});

test('a quote is to be had on paper: by operators, and by the link of its sending alone', async () => {
  const { link, id } = await sendIn('A tag on paper');
  const [{ number }] = (await make(id)).body;
  const other = await sendIn('Another tag on paper');
  for (const path of [`/api/jobs/${id}`, link]) {
    const answer = await fetch(`${stack.url}${path}/quotes/${number}/quote.pdf`);
    expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/pdf']);
    expect(answer.headers.get('content-disposition')).toBe(`attachment; filename="quote-${number}.pdf"`);
    expect(
      Buffer.from(await answer.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
  }
  for (const path of [other.link, `/api/jobs/${other.id}`])
    expect((await fetch(`${stack.url}${path}/quotes/${number}/quote.pdf`)).status).toBe(404);
  expect((await fetch(`${stack.url}${link}/quotes/first/quote.pdf`)).status).toBe(400);
});

test('what was burnt comes as a table for invoices, line by line of what was agreed', async () => {
  const burnt = async (title: string, sought: string) => {
    const { id } = await card(sought);
    await stack.ask('PATCH', `/api/jobs/${id}`, { title });
    await stack.ask('PUT', `/api/jobs/${id}/state`, { state: 'burnt' });
    return id;
  };
  const agreed = await burnt('=SUM(A1), "a tag"', 'A tag with a price');
  const listed = await burnt('Packets', 'Seed packet');
  const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  const csv = async (from: string, until: string) => {
    const answer = await fetch(`${stack.url}/api/invoices.csv?from=${from}&until=${until}`);
    return { status: answer.status, text: await answer.text() };
  };
  const rows = (await csv(day(-1), day(1))).text.trim().split('\r\n');
  expect(rows[0].replace('\uFEFF', '')).toBe('job,title,project,for,burnt,stands,quote,line,amount,currency');
  const rowsOf = (id: string) => rows.filter((row) => row.startsWith(id)).map((row) => row.slice(id.length + 1));
  // What a table program would take for a formula begins with an apostrophe.
  expect(rowsOf(agreed)).toEqual([
    expect.stringMatching(/^"'=SUM\(A1\), ""a tag""",,Noor Castellan,[\d-]{10},burnt,\d+,Cutting,9\.10,€$/),
    expect.stringMatching(/,Friend of the house,.*-0\.35"?,€$/),
  ]);
  expect(rowsOf(listed)).toEqual([expect.stringMatching(/^Packets,.*,burnt,,As worked out,\d+\.\d\d,€$/)]);
  expect(rows.some((row) => row.includes('Another one'))).toBe(false);
  expect((await csv(day(-9), day(-8))).text.trim().split('\r\n')).toHaveLength(1);
  expect((await csv('soon', day(1))).status).toBe(400);
});
