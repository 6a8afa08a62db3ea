import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { daysAfter, type EndedRun, type PaidJob, shopFigures, weekOf } from './shop-figures.ts';

const run = (day: string, seconds: number, more: Partial<EndedRun> = {}): EndedRun => ({
  day,
  seconds,
  machineId: 'wren',
  by: 'Ines Varga',
  taken: [],
  ...more,
});
const none = { from: '2026-11-23', until: '2026-12-06', currency: '€', runs: [], jobs: [], stock: [] };

describe('the figures of a shop', () => {
  test('a week begins on its Monday, over the end of a year as well', () => {
    expect(['2026-11-30', '2026-12-02', '2026-12-06', '2027-01-01', '2028-03-01'].map(weekOf)).toEqual([
      '2026-11-30',
      '2026-11-30',
      '2026-11-30',
      '2026-12-28',
      '2028-02-28',
    ]);
    expect(daysAfter('2028-02-28', 2)).toBe('2028-03-01');
  });

  test('are told of each week of the days, also of one in which nothing was done', () => {
    const { weeks } = shopFigures({
      ...none,
      from: '2026-11-25',
      until: '2026-12-09',
      runs: [run('2026-11-29', 60), run('2026-11-29', 30, { machineId: 'curlew' }), run('2026-11-26', 40)],
      jobs: [{ day: '2026-12-07', whose: 'Noor Castellan', amount: 9.1 }],
    });
    expect(weeks).toEqual([
      {
        week: '2026-11-23',
        machines: [
          { machineId: 'wren', seconds: 100, runs: 2 },
          { machineId: 'curlew', seconds: 30, runs: 1 },
        ],
        amount: 0,
        jobs: 0,
      },
      { week: '2026-11-30', machines: [], amount: 0, jobs: 0 },
      { week: '2026-12-07', machines: [], amount: 9.1, jobs: 1 },
    ]);
  });

  test('name who sent the runs and whose the jobs are, those with most time first', () => {
    const { people } = shopFigures({
      ...none,
      runs: [run('2026-11-24', 50, { by: '' }), run('2026-11-24', 90), run('2026-11-25', 10)],
      jobs: [
        { day: '2026-11-24', whose: 'Noor Castellan', amount: 1.1 },
        { day: '2026-11-24', whose: 'Noor Castellan', amount: 2.2 },
        { day: '2026-11-24', whose: 'Ines Varga', amount: 4 },
      ],
    });
    expect(people).toEqual([
      { name: 'Ines Varga', seconds: 100, runs: 2, amount: 4, jobs: 1 },
      { name: '', seconds: 50, runs: 1, amount: 0, jobs: 0 },
      { name: 'Noor Castellan', seconds: 0, runs: 0, amount: 3.3, jobs: 2 },
    ]);
  });

  test('count whole sheets and offcuts apart, without what was put back; what is not counted has no number', () => {
    const taken = [
      { materialId: 'ply', offcut: false },
      { materialId: 'ply', offcut: false, putBack: true },
      { materialId: 'ply', offcut: true },
      { materialId: 'cork', offcut: false },
    ];
    const { stock } = shopFigures({
      ...none,
      runs: [run('2026-11-24', 1, { taken }), run('2026-11-25', 1, { taken: taken.slice(0, 1) })],
      stock: [
        { materialId: 'ply', stock: [{ count: 4 }, { count: 3, offcut: false }, { count: 2, offcut: true }] },
        { materialId: 'cork', stock: null },
      ],
    });
    expect(stock).toEqual([
      { materialId: 'ply', used: 2, offcutsUsed: 1, left: 7, offcutsLeft: 2 },
      { materialId: 'cork', used: 1, offcutsUsed: 0, left: null, offcutsLeft: 0 },
    ]);
  });

  test('the weeks and the people add up to the same, and what has no price is counted apart', () => {
    const day = fc.integer({ min: 0, max: 13 }).map((days) => daysAfter('2026-11-23', days));
    const who = fc.constantFrom('', 'Ines Varga', 'Noor Castellan');
    const cents = fc.option(fc.integer({ min: 0, max: 99_999 }).map((n) => n / 100));
    const runs = fc.array(fc.record({ day, by: who, seconds: fc.integer({ min: 0, max: 9999 }) }));
    const jobs = fc.array(fc.record({ day, whose: who, amount: cents }));
    fc.assert(
      fc.property(runs, jobs, (some, burnt: PaidJob[]) => {
        const told = shopFigures({ ...none, runs: some.map((one) => run(one.day, one.seconds, one)), jobs: burnt });
        const sum = (values: number[]) => Math.round(values.reduce((all, value) => all + value, 0) * 100) / 100;
        const seconds = sum(told.weeks.flatMap(({ machines }) => machines.map((time) => time.seconds)));
        expect(seconds).toBe(sum(told.people.map((person) => person.seconds)));
        expect(seconds).toBe(sum(some.map((one) => one.seconds)));
        expect(sum(told.weeks.map(({ amount }) => amount))).toBe(sum(told.people.map(({ amount }) => amount)));
        expect(sum(told.weeks.map((week) => week.jobs)) + told.withoutPrice).toBe(burnt.length);
      }),
    );
  });
});
