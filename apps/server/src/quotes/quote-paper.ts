import type { QuoteAnswer } from '@lambent/contracts';
import { type Paper, writePaper } from '@lambent/core/formats';
import { formatMoney } from '@lambent/core/recipes';
import { shippedTools } from '@lambent/fonts';

/** What a quote says on paper. */
export interface QuoteTask {
  readonly quote: QuoteAnswer;
  readonly shopName: string;
}

/** A quote as PDF. */
export function quotePdf({ quote, shopName }: QuoteTask): Promise<Uint8Array> {
  return writePaper(paperOf(quote, shopName), shippedTools().fonts);
}

const standing = { open: 'Waits for a yes', accepted: 'Accepted', expired: 'Over', withdrawn: 'Withdrawn' } as const;

/** What stands on it. Days are those of UTC. */
export function paperOf(quote: QuoteAnswer, shopName: string): Paper {
  const { number, title, whose, lines, total, currency, validUntil, terms, madeAt, by, state, acceptedAt, acceptedBy } =
    quote;
  const accepted = [acceptedAt?.slice(0, 10), acceptedBy].filter(Boolean).join(', ');
  const facts = [
    { name: 'From', value: [shopName, by].filter(Boolean).join(', ') },
    { name: 'For', value: whose },
    { name: 'Made', value: madeAt.slice(0, 10) },
    { name: 'Holds until', value: validUntil },
    { name: 'Stands', value: accepted ? `${standing[state]}, ${accepted}` : standing[state] },
  ];
  return {
    title,
    kind: `Quote ${number}`,
    facts: facts.filter(({ value }) => value !== ''),
    code: null,
    picture: null,
    tables: [
      {
        title: 'Price',
        columns: [
          { name: 'What', widthMm: 0, isFigures: false },
          { name: 'Amount', widthMm: 35, isFigures: true },
        ],
        rows: lines.map(({ what, amount }) => [what, formatMoney(amount, { currency })]),
        total: ['In all', formatMoney(total, { currency })],
      },
    ],
    lists: [{ title: 'Terms', lines: terms.split('\n').filter((line) => line.trim() !== '') }],
  };
}
