import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { guidePages, soughtPages } from './guide-pages.ts';

const folder = new URL('../../../../docs/guide/', import.meta.url);
const names = readdirSync(folder).map((name) => name.replace(/\.md$/, ''));
const files = Object.fromEntries(names.map((name) => [name, readFileSync(new URL(`${name}.md`, folder), 'utf8')]));
const pages = guidePages(files);

test('the guide has a page a stage and thirteen small jobs, and no other file', () => {
  expect(pages.map(({ slug }) => slug).sort()).toEqual(names.sort());
  expect(pages.filter(({ stage }) => stage !== null)).toHaveLength(7);
  expect(pages.filter(({ job }) => job !== null)).toHaveLength(13);
  expect(pages[0]).toMatchObject({ slug: 'bed', title: 'Bed', stage: 'bed' });
  for (const { title, text } of pages) expect([title, text.includes('# ')]).toEqual([title, false]);
  expect(() => guidePages({})).toThrow('The guide has no page “bed”.');
});

test('each job that has a drawing finds it', () => {
  for (const { slug, job } of pages) {
    expect([slug, existsSync(new URL(`drawings/${slug}.svg`, import.meta.url))]).toEqual([
      slug,
      job?.hasDrawing ?? false,
    ]);
  }
});

test('what is sought is found by all of its words, in titles first', () => {
  expect(soughtPages(pages, 'KERF')[0].slug).toBe('find-the-kerf');
  expect(soughtPages(pages, 'kerf').length).toBeGreaterThan(2);
  expect(soughtPages(pages, 'mirror back')[0].slug).toBe('engrave-the-back-of-a-mirror');
  expect(soughtPages(pages, 'zeppelin')).toEqual([]);
  expect(soughtPages(pages, '  ')).toHaveLength(pages.length);
});
