import { describe, expect, test } from '@jest/globals';
import { cookieFor, type DoorRules, judge } from './door.ts';

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
