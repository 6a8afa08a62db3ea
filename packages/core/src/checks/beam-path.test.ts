import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { writeGcode } from '../formats/gcode/write.ts';
import { mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const sheet = { id: 's', materialId: 'ply', x: 0, y: 0, width: 600, height: 400, margin: 0 };
const jobOf = (items: readonly Item[], machineId = 'm'): JobDocument =>
  jobWith(items, { machineId, sheets: [sheet], settings: { cut: { kerfMm: 0.2 } } });

function checked(job: JobDocument) {
  const prepared = prepareJob(job, shop);
  const plan = planJob(prepared);
  const coordinates = [...writeGcode(plan, 'x')].flatMap((line) => [...line.matchAll(/[XY](-?[\d.]+)/g)]);
  return {
    found: checkJob(prepared, plan).find(({ code }) => code === 'beam-off-bed'),
    least: Math.min(...coordinates.map(([, value]) => Number(value))),
  };
}

describe('a kerf that leads the beam off the bed', () => {
  test.each([
    ['left', box(0, 100, 20), 'X −0.10 mm', 0.1, 0],
    ['right', box(580, 100, 20), 'X 600.10 mm', -0.1, 0],
    ['top', box(100, 0, 20), 'Y −0.10 mm', 0, 0.1],
    ['bottom', box(100, 380, 20), 'Y 400.10 mm', 0, -0.1],
    ['corner', box(0, 0, 20), 'Y −0.10 mm', 0.1, 0.1],
  ])('blocks at the %s, and moving it in mends it', (_, path, place, dx, dy) => {
    const over = item(path, 'cut');
    const { found } = checked(jobOf([over]));
    expect(found).toMatchObject({ level: 'blocks', itemIds: [over.id] });
    expect(found?.message).toContain(`The beam would go to ${place} on 1 outline, off the bed`);
    const [mend] = found?.mends ?? [];
    expect(mend).toMatchObject({ words: 'Move in by 0.10 mm', isSafe: true, step: { kind: 'move', dx, dy } });
    const after = checked(mended(jobOf([over]), mend));
    expect(after.found).toBeUndefined();
    expect(after.least).toBeGreaterThanOrEqual(0);
  });

  test('says where in the machine’s own numbers', () => {
    expect(checked(jobOf([item(box(100, 380, 20), 'cut')], 'low')).found?.message).toContain('Y −0.10 mm');
    expect(checked(jobOf([item(box(0, 100, 20), 'cut')], 'mid')).found?.message).toContain('X −300.10 mm');
  });

  test('moves what lies in it along, and nothing that lies elsewhere', () => {
    const [plate, hole, away] = [
      item(box(0, 100, 50), 'cut'),
      item(box(10, 110, 10), 'cut'),
      item(box(200, 100, 9), 'cut'),
    ];
    const [mend] = checked(jobOf([plate, hole, away])).found?.mends ?? [];
    expect(new Set('itemIds' in mend.step ? mend.step.itemIds : [])).toEqual(new Set([plate.id, hole.id]));
  });

  test('has no such mend where it is over at both sides', () => {
    const { found } = checked(jobOf([item(box(0, 0, 600, 50), 'cut')]));
    expect(found?.level).toBe('blocks');
    expect(found?.mends).toBeUndefined();
  });

  test('is not said of what stays on the bed, nor of what is drawn off it', () => {
    expect(checked(jobOf([item(box(0.1, 0.1, 20), 'cut')])).found).toBeUndefined();
    expect(checked(jobOf([item(box(0, 0, 20), 'score')])).found).toBeUndefined();
    expect(checked(jobOf([item(box(-5, 0, 20), 'cut')])).found).toBeUndefined();
    // One that is drawn off the bed does not hide another whose beam alone leaves it.
    const both = checked(jobOf([item(box(-5, 0, 20), 'cut'), item(box(0, 100, 20), 'cut')]));
    expect(both.found?.message).toContain('on 1 outline');
  });
});

test('axes that run short lead a machine off its bed before the edge is reached: that is said before', () => {
  const short = { ...shop, machines: [{ ...shop.machines[0], axes: { x: 0.99, y: 1, lean: 0 } }] };
  const findingAt = (x: number) => {
    const prepared = prepareJob({ ...jobOf([item(box(x, 100, 20), 'score')]), settings: {} }, short);
    return checkJob(prepared, planJob(prepared)).find(({ code }) => code === 'beam-off-bed');
  };
  // 594 mm is as far as its X truly goes.
  expect(findingAt(573.9)).toBeUndefined();
  expect(findingAt(576)).toMatchObject({ level: 'blocks' });
  expect(findingAt(576)?.message).toBe(
    'The beam would go to X 602.02 mm, off the bed: Test machine would stop with an alarm in mid-job. Its axes run short there: they are taken back as they were measured.',
  );
});
