import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ErrorAnswer, FontAnswer, JobAnswer, SettingsDto } from '@lambent/contracts';
import { encodePixels } from '@lambent/core/formats';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const require = createRequire(import.meta.url);
const bytesAt = async (path: string) => {
  const response = await fetch(stack.url + path);
  return { status: response.status, bytes: new Uint8Array(await response.arrayBuffer()) };
};
const refusal = async (method: string, path: string, body: unknown) => {
  const answer = await stack.ask<ErrorAnswer>(method, path, body);
  return [answer.status, answer.body.error.code];
};

const png = await encodePixels({ width: 3, height: 2, rgb: new Uint8Array(18).fill(7) });

describe('pictures', () => {
  const id = createHash('sha256').update(png).digest('hex');

  test('are kept under their hash, byte for byte, however often they are sent', async () => {
    for (let i = 0; i < 2; i++) expect((await stack.ask('PUT', `/api/pictures/${id}`, png)).status).toBe(204);
    expect(await bytesAt(`/api/pictures/${id}`)).toEqual({ status: 200, bytes: png });
    expect((await bytesAt(`/api/pictures/${'0'.repeat(64)}`)).status).toBe(404);
  });

  test('are looked at, not trusted', async () => {
    expect(await refusal('PUT', '/api/pictures/heron', png)).toEqual([400, 'not-an-id']);
    expect(await refusal('PUT', `/api/pictures/${id}`, new Uint8Array([1, 2, 3]))).toEqual([415, 'not-a-picture']);
  });
});

describe('fonts', () => {
  const file = require.resolve('@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-700-normal.woff');
  const font = new Uint8Array(readFileSync(file));

  test('ship with Lambent, and the shop adds its own and takes them away', async () => {
    const families = async () => (await stack.ask<FontAnswer[]>('GET', '/api/fonts')).body.map(({ family }) => family);
    expect(await families()).toContain('Bitter');
    const { body } = await stack.ask<FontAnswer>('POST', '/api/fonts', font);
    expect(body).toMatchObject({ family: 'Atkinson Hyperlegible', bold: true, italic: false });
    expect((await families())[0]).toBe('Atkinson Hyperlegible');
    expect((await bytesAt(`/api/fonts/${body.id}`)).bytes).toEqual(font);
    expect((await stack.ask('DELETE', `/api/fonts/${body.id}`)).status).toBe(204);
    expect(await families()).not.toContain('Atkinson Hyperlegible');
    expect((await bytesAt(`/api/fonts/${body.id}`)).status).toBe(404);
  });

  test('one that is none is refused with a sentence', async () => {
    expect(await refusal('POST', '/api/fonts', new Uint8Array([1, 2, 3]))).toEqual([415, 'not-a-font']);
    expect(await refusal('POST', '/api/fonts', new TextEncoder().encode('wOF2 and more'))).toEqual([415, 'not-a-font']);
  });
});

test('what readers need beside the file is given; nothing else of the disk is', async () => {
  expect((await bytesAt('/api/assets/webp/webp_dec.wasm')).bytes.slice(0, 4)).toEqual(
    new Uint8Array([0, 97, 115, 109]),
  );
  expect((await bytesAt('/api/assets/standard_fonts/FoxitFixed.pfb')).status).toBe(200);
  for (const path of [
    'standard_fonts/none.pfb',
    'standard_fonts/..%2Fpackage.json',
    'build/pdf.mjs',
    '..%2F..%2Fetc/passwd',
  ]) {
    expect((await bytesAt(`/api/assets/${path}`)).status).toBe(404);
  }
});

test('an original comes back as it was brought in, to its own job only', async () => {
  const make = async (title: string) =>
    (await stack.ask<JobAnswer>('POST', '/api/jobs', { title, machineId: 'wren' })).body.id;
  const [one, other] = [await make('One'), await make('Other')];
  const file = new TextEncoder().encode('0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n');
  const { body } = await stack.ask<{ id: number }>('POST', `/api/jobs/${one}/originals?name=a.dxf`, file);
  expect(await bytesAt(`/api/jobs/${one}/originals/${body.id}`)).toEqual({ status: 200, bytes: file });
  expect((await bytesAt(`/api/jobs/${other}/originals/${body.id}`)).status).toBe(404);
});

test('the shop’s price list is kept, and checked', async () => {
  const { body } = await stack.ask<SettingsDto>('GET', '/api/settings');
  expect(body.pricing).toMatchObject({ currency: '€', setUp: 1.5, machines: { wren: 0.35 } });
  const dearer = { ...body.pricing, setUp: 2 };
  const settled = await stack.ask<SettingsDto>('PUT', '/api/settings', { fileNames: body.fileNames, pricing: dearer });
  expect(settled.body.pricing).toEqual(dearer);
  for (const pricing of [{ ...dearer, setUp: -1 }, { ...dearer, machines: 3 }, 'free']) {
    expect((await stack.ask('PUT', '/api/settings', { fileNames: body.fileNames, pricing })).status).toBe(400);
  }
  // What is not sent stays as it is.
  await stack.ask('PUT', '/api/settings', { fileNames: '{job}' });
  expect((await stack.ask<SettingsDto>('GET', '/api/settings')).body).toEqual({
    shopName: 'Tern Lane Workshop',
    people: ['Ines Varga', 'Tobiah Okonjo'],
    fileNames: '{job}',
    pricing: dearer,
    speedUnit: 'mm/s',
    lengthUnit: 'mm',
    dates: 'day first',
    numbers: 'point',
    backupDays: 14,
    isSetUp: true,
    opensAt: '08:00',
    closesAt: '20:00',
    openDays: [1, 2, 3, 4, 5, 6, 7],
    setUpMinutes: 5,
    timeZone: '',
    quoteDays: 14,
    quoteTerms: '',
    sendingMb: 10,
    mailAddress: 'workshop@ternlane.example',
    isDemo: false,
  });
  await stack.ask('PUT', '/api/settings', { speedUnit: 'mm/min' });
  expect((await stack.ask<SettingsDto>('GET', '/api/settings')).body).toMatchObject({
    pricing: dearer,
    speedUnit: 'mm/min',
  });
  expect((await stack.ask('PUT', '/api/settings', { fileNames: '{job}', speedUnit: 'knots' })).status).toBe(400);
});

test.each<[object, string]>([
  [{ shopName: 'x'.repeat(81) }, 'A shop’s name has up to 80 characters.'],
  [{ people: ['Ines', 'Ines'] }, 'Two people have one name. Tell them apart.'],
  [{ people: ['Ines', ''] }, 'A name has 1 to 60 characters.'],
  [{ lengthUnit: 'furlong' }, 'Lengths are in mm, cm or in.'],
  [{ dates: 'never' }, 'Days are written day first, month first or year first.'],
  [{ backupDays: 1.5 }, 'Copies are kept for a whole number of days.'],
  [{ backupDays: -1 }, 'Copies are kept for 0 to 365 days.'],
  [{ backupDays: 366 }, 'Copies are kept for 0 to 365 days.'],
])('the shop does not settle %j', async (sent, sentence) => {
  const before = (await stack.ask('GET', '/api/settings')).body;
  const { status, body } = await stack.ask<ErrorAnswer>('PUT', '/api/settings', sent);
  expect([status, body.error.message]).toEqual([400, sentence]);
  expect((await stack.ask('GET', '/api/settings')).body).toEqual(before);
});

test('how the shop is called, who works there and how it writes are kept; new jobs begin in its unit', async () => {
  const ways = {
    shopName: ' Quay ',
    people: ['Ines '],
    lengthUnit: 'in',
    dates: 'year first',
    backupDays: 0,
    isSetUp: false,
  };
  const { body } = await stack.ask<SettingsDto>('PUT', '/api/settings', ways);
  expect(body).toMatchObject({ ...ways, shopName: 'Quay', people: ['Ines'] });
  const job = await stack.ask<JobAnswer>('POST', '/api/jobs', { title: 'In inches', machineId: 'wren' });
  expect(job.body.document.unit).toBe('in');
  // What is sent as nothing is left as it is.
  const { body: same } = await stack.ask<SettingsDto>('PUT', '/api/settings', { shopName: null, people: null });
  expect(same).toEqual(body);
  await stack.ask('PUT', '/api/settings', { lengthUnit: 'mm' });
});

test('the shop’s pattern for file names is kept, and checked', async () => {
  const settings = async () => (await stack.ask<SettingsDto>('GET', '/api/settings')).body;
  expect((await settings()).fileNames).toContain('{job}');
  await stack.ask('PUT', '/api/settings', { fileNames: '{date} {job}', more: 1 });
  expect(await settings()).toMatchObject({ fileNames: '{date} {job}' });
  expect((await stack.ask('PUT', '/api/settings', { fileNames: '' })).status).toBe(400);
});
