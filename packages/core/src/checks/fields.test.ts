import { expect, test } from '@jest/globals';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import type { Operation } from '../operations/operations.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { usualText } from '../text/set.ts';
import { checkJob } from './check.ts';

const text = (words: string, operation: Operation = 'engrave') =>
  item(box(10, 10, 5), operation, { shape: { kind: 'text', text: { ...usualText, words }, path: box(50, 50, 20) } });

function unfilled(...texts: ReturnType<typeof text>[]) {
  const prepared = prepareJob(jobWith([item(box(20, 20, 200), 'cut'), ...texts]), shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'field-unfilled');
}

test('fields that nothing fills are told by their names, each once', () => {
  const texts = [text('Dear {name},\nrow {row number}'), text('{name} again')];
  expect(unfilled(...texts)).toMatchObject([
    {
      level: 'warns',
      itemIds: texts.map(({ id }) => id),
      message:
        '2 texts hold 2 fields that nothing fills: {name}, {row number} would be burnt as they are written. Write what is meant.',
    },
  ]);
  expect(unfilled(text('No. {Nº}'))).toHaveLength(1);
  const many = unfilled(text('{a}{b}{c}{d}{e}{f}{g}'));
  expect(many[0].message).toContain('{a}, {b}, {c}, {d}, {e} and 2 more would be burnt');
});

test('plain words, braces without a name, and what does not burn hold none', () => {
  expect(unfilled(text('a {} b { } c {1} d'), text('{name', 'score'), text('{name}', 'note'))).toEqual([]);
});
