import { describe, expect, test } from '@jest/globals';
import type { JobDocument } from '../document/job.ts';
import { changeRun } from '../edits/layers.ts';
import { box, item, jobWith, line, material, shop } from '../fixtures/shop.ts';
import { type Mend, mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';
import type { Finding } from './finding.ts';

function found(job: JobDocument, code: Finding['code'], within = shop): Finding[] {
  const prepared = prepareJob(job, within);
  return checkJob(prepared, planJob(prepared)).filter((entry) => entry.code === code);
}
const plate = item(box(20, 20, 100, 60), 'cut');

describe('a cut from edge to edge of a piece', () => {
  test.each([
    ['straight across', line(50, 20, 50, 80), true],
    ['in corners, its ends a little short', line(50, 20.08, 50, 50, 119.95, 50), true],
    ['ending within the piece', line(50, 20, 50, 70), false],
    ['beside the piece', line(150, 20, 150, 80), false],
    ['along its edge', line(20, 20, 120, 20), false],
  ])('%s', (_, path, isFound) => {
    const across = item(path, 'cut');
    const job = jobWith([plate, across]);
    const [two] = found(job, 'cut-in-two');
    expect(two !== undefined).toBe(isFound);
    expect(found(job, 'open-cut').flatMap(({ itemIds }) => itemIds)).toEqual(isFound ? [] : [across.id]);
    if (!two) return;
    expect(two).toMatchObject({ level: 'warns', itemIds: [across.id], mends: [{ words: 'Score it' }] });
    expect(found(mended(job, two.mends?.[0] as Mend), 'cut-in-two')).toEqual([]);
  });
});

describe('mirrored', () => {
  const mirrored = (more = {}) => changeRun(jobWith([plate]), 'run-1', { mirrored: true, ...more });
  test('on stock that one cannot see through is noted, and burnt as drawn on a press', () => {
    const [note] = found(mirrored(), 'mirrored-opaque');
    expect(note.message).toBe(
      'Run 1 burns mirrored on Plywood, which one cannot see through: it will read the wrong way round.',
    );
    const after = mended(mirrored(), note.mends?.[0] as Mend);
    expect(after.runs[0].mirrored).toBe(false);
  });
  test('on clear stock, or on stock that is turned over, it is meant', () => {
    const clear = { ...shop, materials: [{ ...material, isClear: true }] };
    expect(found(mirrored(), 'mirrored-opaque', clear)).toEqual([]);
    expect(found(mirrored({ stock: 'turned over' }), 'mirrored-opaque')).toEqual([]);
    expect(found(jobWith([plate]), 'mirrored-opaque')).toEqual([]);
  });
});

describe('a long engraving', () => {
  const large = jobWith([item(box(20, 20, 200, 150), 'engrave')]);
  test('is told with what saves time: lines further apart, outlines alone', () => {
    const [long] = found(large, 'long-engraving');
    const [coarser, outlines] = long.mends ?? [];
    expect(coarser.words).toMatch(/^Lines of 0\.20 mm, −\d+:\d\d$/);
    expect(outlines.words).toMatch(/^Score the outlines, −[\d:]+$/);
    const timeOf = (job: JobDocument) => planJob(prepareJob(job, shop)).timeS;
    const now = timeOf(large);
    expect(timeOf(mended(large, coarser)) / now).toBeCloseTo(0.5, 1);
    const [seconds, minutes, hours = 0] = (/−([\d:]+)$/.exec(outlines.words)?.[1] ?? '')
      .split(':')
      .map(Number)
      .reverse();
    const saved = hours * 3600 + minutes * 60 + seconds;
    expect((now - timeOf(mended(large, outlines))) / saved).toBeCloseTo(1, 1);
  });
  test('a short one is none, and lines are not spread beyond what looks full', () => {
    expect(found(jobWith([item(box(20, 20, 20), 'engrave')]), 'long-engraving')).toEqual([]);
    const coarse = { ...large, settings: { engrave: { lineSpacingMm: 0.25, speedMmPerS: 100 } } };
    const [long] = found(coarse, 'long-engraving');
    expect(long.mends?.map(({ words }) => words)).toEqual([expect.stringMatching(/^Score/)]);
  });
});
