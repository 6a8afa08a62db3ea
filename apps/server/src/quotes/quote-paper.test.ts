import { expect, test } from '@jest/globals';
import type { QuoteAnswer } from '@lambent/contracts';
import { paperOf } from './quote-paper.ts';

const quote: QuoteAnswer = {
  number: 12,
  title: 'Tag for the gate',
  whose: 'Noor Castellan',
  lines: [
    { what: 'Cutting', amount: 234.5 },
    { what: 'Friend of the house', amount: -0.35 },
  ],
  total: 234.15,
  currency: '€',
  validUntil: '2026-12-11',
  terms: 'Payable when it is fetched.\n\nOne month for faults.',
  madeAt: '2026-11-27T09:12:00.000Z',
  by: 'Ines Varga',
  state: 'open',
  acceptedAt: null,
  acceptedBy: null,
};
const factsOf = (changed: Partial<QuoteAnswer>) =>
  paperOf({ ...quote, ...changed }, 'Tern Lane Workshop').facts.map(({ name, value }) => `${name}: ${value}`);

test('a quote on paper says from whom and for whom it is, what it costs, until when, and on which terms', () => {
  const { kind, tables, lists } = paperOf(quote, 'Tern Lane Workshop');
  expect(kind).toBe('Quote 12');
  expect(factsOf({})).toEqual([
    'From: Tern Lane Workshop, Ines Varga',
    'For: Noor Castellan',
    'Made: 2026-11-27',
    'Holds until: 2026-12-11',
    'Stands: Waits for a yes',
  ]);
  const [{ rows, total }] = tables;
  expect([...rows, total]).toEqual([
    ['Cutting', '€ 234.50'],
    ['Friend of the house', '€ -0.35'],
    ['In all', '€ 234.15'],
  ]);
  expect(lists[0].lines).toEqual(['Payable when it is fetched.', 'One month for faults.']);
});

test('it says who accepted it, and nothing of whom it is for where it is nobody’s', () => {
  const accepted = { state: 'accepted', acceptedAt: '2026-11-28T10:00:00.000Z', acceptedBy: 'Noor Castellan' } as const;
  expect(factsOf({ ...accepted, whose: '', by: null })).toEqual([
    'From: Tern Lane Workshop',
    'Made: 2026-11-27',
    'Holds until: 2026-12-11',
    'Stands: Accepted, 2026-11-28, Noor Castellan',
  ]);
});
