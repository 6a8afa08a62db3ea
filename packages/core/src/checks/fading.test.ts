import { describe, expect, test } from '@jest/globals';
import type { Fade } from '../document/fade.ts';
import type { Item } from '../document/item.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { changeSetting, scaleItems, transformItems } from '../edits/items.ts';
import { keepWithin } from '../edits/keep-within.ts';
import { simplifyItems } from '../edits/refit-items.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { rotation } from '../geometry/paths/matrix.ts';
import { mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { toneArt } from '../plan/tone-art.ts';
import { burntDots, rowsOfDots } from '../plan/tones.ts';
import { checkJob } from './check.ts';

/** From black at x 20 to white at x 60. */
const fade: Fade = {
  kind: 'linear',
  matrix: [1, 0, 0, 1, 0, 0],
  from: { x: 20, y: 0 },
  to: { x: 60, y: 0 },
  stops: [
    { at: 0, colour: '#000000', opacity: 1 },
    { at: 1, colour: '#FFFFFF', opacity: 1 },
  ],
};
const filled = (more: Partial<Item> = {}, own: Fade = fade) =>
  item(box(20, 10, 40, 20), 'engrave', {
    paint: { stroke: null, strokeWidthMm: 0, fill: '#808080', fade: own },
    ...more,
  });
const found = (job: ReturnType<typeof jobWith>) => {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'fading-engraved');
};

describe('a fading fill', () => {
  test('that is engraved is told of, and put on Photo', () => {
    const job = jobWith([filled({ pinned: 'engrave' }), item(box(70, 10, 10), 'engrave')]);
    const [finding] = found(job);
    expect(finding.message).toBe(
      '1 fill fades or can be seen through, and is engraved all over alike. On Photo its greys burn.',
    );
    expect(finding.itemIds).toEqual([job.drawing.items[0].id]);
    const [mend] = finding.mends ?? [];
    expect(mend.words).toBe('Burn its greys');
    expect(found(mended(job, mend))).toEqual([]);
  });
});

/** The share of power that Photo burns in the middle of dots of half a mm, by place along x. */
function sharesOf(job: ReturnType<typeof jobWith>, y: number): (x: number) => number {
  const said = [
    ['lineSpacingMm', 0.5],
    ['grain', 'true-greys'],
    ['leastPowerPercent', 0],
  ] as const;
  const set = said.reduce((now, [name, value]) => changeSetting(now, 'photo', name, value), job);
  const prepared = prepareJob(set, shop);
  const layer = prepared.layers.find(({ id }) => id === 'photo');
  const settings = layer?.applied.settings;
  if (!layer || !settings) throw new Error('Photo has no settings');
  const dots = burntDots(toneArt(prepared, layer), settings);
  if (!dots) throw new Error('Nothing burns');
  const rows = Array.from(rowsOfDots(dots, settings), ({ y: at, xs, powers }) => ({
    ...{ at, xs: xs.slice(), powers: powers?.slice() },
  }));
  const row = rows.find((known) => Math.abs(known.at - y) < 0.3);
  return (x) => {
    const i = row ? [...row.xs].findIndex((from, k) => k % 2 === 0 && from <= x && x < row.xs[k + 1]) : -1;
    return i < 0 ? 0 : (row?.powers?.[i / 2] ?? 1);
  };
}

describe('on Photo', () => {
  const on = (own: Fade = fade) => filled({ pinned: 'photo' }, own);
  test('it burns its greys, sampled where each dot lies', () => {
    const share = sharesOf(jobWith([on()]), 20);
    for (const x of [20.25, 30.25, 45.25, 55.25]) expect(share(x)).toBeCloseTo(1 - (x - 20) / 40, 2);
  });

  test('what can be seen through lets what is behind it burn', () => {
    const behind = item(box(20, 10, 20, 20), 'photo', {
      paint: { stroke: null, strokeWidthMm: 0, fill: '#000000' },
      pinned: 'photo',
    });
    const veil = item(box(20, 10, 40, 20), 'photo', {
      paint: { stroke: null, strokeWidthMm: 0, fill: '#FFFFFF', fade: { kind: 'even', opacity: 0.25 } },
      pinned: 'photo',
    });
    const share = sharesOf(jobWith([behind, veil]), 20);
    expect(share(30.25)).toBeCloseTo(0.75, 2);
    expect(share(50.25)).toBe(0);
  });

  test('it stays where it is in its shape, however that is moved, scaled, cut or simplified, and is kept in files', () => {
    const ids = new Set([on().id]);
    const fresh = on();
    const start = jobWith([{ ...fresh, id: [...ids][0] }]);
    const turned = transformItems(start, ids, rotation(90, { x: 40, y: 20 }));
    const wide = scaleItems(turned, ids, 2, 1, { x: 40, y: 20 });
    const cut = keepWithin(wide, ids, box(20, 0, 30, 80), 'inside');
    const { job } = simplifyItems(cut, ids, 0.01);
    const kept = jobFromJson(JSON.parse(JSON.stringify(jobToJson(job))));
    // Black at the top, which was at the left; white 40 mm below.
    for (const y of [5.25, 20.25, 35.25]) expect(sharesOf(kept, y)(25.25)).toBeCloseTo(1 - y / 40, 1);
    expect(sharesOf(kept, 20.25)(55)).toBe(0);
  });
});
