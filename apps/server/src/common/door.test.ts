import { describe, expect, test } from '@jest/globals';
import { cookieFor, type DoorRules, doorOf, judge } from './door.ts';

const own: DoorRules = { host: '127.0.0.1', token: null };
const at = (method: string, url: string, headers: Record<string, string> = {}, rules = own) =>
  judge({ method, url, headers: { host: 'localhost:7450', ...headers } }, rules);

describe('another site’s page', () => {
  test.each([
    '/api/jobs',
    '/API/jobs',
    '/Api/jobs',
    '/%61pi/jobs',
    '/%41PI/jobs',
    '//api/jobs',
    '/./api',
    '/api%2fjobs',
    '/api',
    '/%',
  ])('may not ask %s, whatever it sends', (url) => {
    for (const method of ['GET', 'HEAD', 'POST', 'PUT', 'DELETE', 'OPTIONS']) {
      expect(at(method, url, { origin: 'http://elsewhere.test' })).toBe('other-origin');
      expect(at(method, url, { origin: 'null' })).toBe('other-origin');
      expect(at(method, url, { origin: 'http://localhost:3000' })).toBe('other-origin');
      expect(at(method, url, { 'sec-fetch-site': 'cross-site' })).toBe('other-origin');
      expect(at(method, url, { 'sec-fetch-site': 'same-site' })).toBe('other-origin');
      expect(at(method, url, { 'sec-fetch-site': 'Same-Origin-Not' })).toBe('other-origin');
    }
  });

  test('may link to the page, and may not send anything to it', () => {
    expect(at('GET', '/jobs/1/art', { 'sec-fetch-site': 'cross-site' })).toBe('pass');
    expect(at('GET', '/apiary', { origin: 'http://elsewhere.test' })).toBe('pass');
    expect(at('POST', '/', { 'sec-fetch-site': 'cross-site' })).toBe('other-origin');
  });

  test('is not taken for our own page, nor a program that sends neither header', () => {
    expect(at('POST', '/api/jobs', { origin: 'http://localhost:7450', 'sec-fetch-site': 'same-origin' })).toBe('pass');
    expect(at('GET', '/api/jobs', { 'sec-fetch-site': 'none' })).toBe('pass');
    expect(at('POST', '/api/jobs')).toBe('pass');
  });
});

test('a name that was made to point here is turned away, for the page too', () => {
  for (const host of [
    'elsewhere.test:7450',
    'elsewhere.test',
    'localhost.elsewhere.test',
    '127.0.0.1.elsewhere.test',
    '',
  ]) {
    expect(at('GET', '/', { host })).toBe('other-name');
    expect(at('POST', '/api/jobs', { host, origin: `http://${host}` })).toBe('other-name');
  }
  for (const host of ['localhost', '127.0.0.1:1', '[::1]:7450']) expect(at('GET', '/', { host })).toBe('pass');
});

describe('with a token', () => {
  const token = 'estuary-reed-warbler-1851';
  const rules: DoorRules = { host: '0.0.0.0', token };
  const host = 'bench-pc:7450';

  test('nothing passes without it, also the page’s own files', () => {
    for (const url of ['/', '/api/jobs', '/assets/x.js', '/?token=', '/?token=wrong', `/api/jobs?Token=${token}`])
      expect(at('GET', url, { host }, rules)).toBe('no-token');
    expect(at('GET', '/', { host, cookie: `lambent=${token}` }, rules)).toBe('no-token');
    expect(at('GET', '/', { host, authorization: 'Bearer wrong' }, rules)).toBe('no-token');
  });

  test('the link brings it once, and the cookie stands for it from then on; programs send it themselves', () => {
    expect(at('GET', `/?token=${token}`, { host }, rules)).toBe('token-brought');
    expect(at('GET', '/api/jobs', { host, cookie: `a=b; lambent=${cookieFor(token)}` }, rules)).toBe('pass');
    expect(at('GET', '/api/jobs', { host, authorization: `Bearer ${token}` }, rules)).toBe('pass');
    expect(cookieFor(token)).not.toContain(token);
  });

  test('another site is turned away, with the cookie too', () => {
    const cookie = `lambent=${cookieFor(token)}`;
    expect(at('POST', '/api/jobs', { host, cookie, origin: 'http://elsewhere.test' }, rules)).toBe('other-origin');
  });
});

test('a header that is there twice counts as none', () => {
  const twice = { host: 'localhost', origin: ['http://localhost', 'http://elsewhere.test'] };
  expect(judge({ method: 'POST', url: '/api/jobs', headers: twice }, own)).toBe('pass');
  expect(judge({ method: 'GET', url: '/', headers: { host: ['localhost', 'localhost'] } }, own)).toBe('other-name');
});

describe('what is answered at the door', () => {
  const token = 'estuary-reed-warbler-1851';
  /** What became of a request: what was called, in order, with what. */
  function knock(url: string, headers: Record<string, string>, rules: DoorRules) {
    const done: unknown[] = [];
    const note =
      (name: string) =>
      (...words: unknown[]) => {
        done.push([name, ...words]);
        return response;
      };
    const response = { status: note('status'), json: note('json'), cookie: note('cookie'), redirect: note('redirect') };
    doorOf(rules)({ method: 'GET', originalUrl: url, headers } as never, response as never, () => done.push(['next']));
    return done;
  }

  test('the token is taken for a cookie that scripts cannot read and other sites cannot send, for 400 days', () => {
    expect(knock(`/?token=${token}`, { host: 'bench-pc' }, { host: '0.0.0.0', token })).toEqual([
      ['cookie', 'lambent', cookieFor(token), { httpOnly: true, sameSite: 'strict', maxAge: 34_560_000_000 }],
      ['redirect', 303, '/'],
    ]);
  });

  test('who may pass passes; who may not is told why', () => {
    expect(knock('/', { host: 'localhost' }, own)).toEqual([['next']]);
    const [status, json] = knock('/', { host: 'bench-pc' }, { host: '0.0.0.0', token });
    expect([status, json]).toMatchObject([
      ['status', 401],
      ['json', { error: { code: 'no-token', message: expect.stringContaining('Open Lambent once by the link') } }],
    ]);
    expect(knock('/', { host: 'elsewhere.test' }, own)).toMatchObject([
      ['status', 403],
      ['json', { error: { code: 'other-origin' } }],
    ]);
  });
});
