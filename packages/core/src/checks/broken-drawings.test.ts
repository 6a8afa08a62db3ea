import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { outlineOf } from '../document/shapes.ts';
import { changeRun, setBurning, switchLayer } from '../edits/layers.ts';
import { box, item as drawn, jobWith, line, machine, material, shop } from '../fixtures/shop.ts';
import { combineOutlines } from '../geometry/areas/combine.ts';
import { translation } from '../geometry/paths/matrix.ts';
import { type Path, PathBuilder } from '../geometry/paths/path.ts';
import { type Mend, mended } from '../mends/mend.ts';
import { type Operation, operationOf } from '../operations/operations.ts';
import { piecesBySize } from '../plan/pieces.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { numbersFrom } from '../plan/random.ts';
import type { Shop } from '../recipes/book/shop.ts';
import { checkJob } from './check.ts';
import type { Finding } from './finding.ts';

/*
 * Clean drawings made from seeds, broken by known faults: every fault is found, nothing is invented, and once all is
 * mended nothing is found any more and the pieces are those of the clean drawing.
 */

const learnt: Shop = {
  ...shop,
  machines: [{ ...machine, bedGapMm: 6 }],
  materials: [
    { ...material, leastSizes: { cut: { detailMm: 0.5, letterMm: 0 }, engrave: { detailMm: 0.2, letterMm: 0 } } },
  ],
};
const sheet = { id: 's', materialId: 'ply', x: 0, y: 0, width: 460, height: 290, margin: 3 };

/** A plate with what is on it, in a cell of its own of 60 × 60 mm. */
interface Plate {
  readonly x: number;
  readonly y: number;
  readonly edge: Item;
  readonly hole: Item;
  readonly fold: Item;
  readonly figure: Item;
}

interface Clean {
  readonly job: JobDocument;
  readonly plates: readonly Plate[];
}

/** What is wrong now, which finding tells it, of which items, and which of its mends puts it right; the first where none is named. */
interface Fault {
  readonly job: JobDocument;
  readonly code: Finding['code'];
  readonly itemIds: readonly string[];
  readonly words?: RegExp;
  /** What is true besides because of it. */
  readonly besides?: readonly Finding['code'][];
}

let seedNow = 0;
/** Ids that tell the drawing they are of, so that a failure can be looked at. */
const named = (entry: Item, name: string): Item => ({ ...entry, id: `${seedNow}-${name}` });
const circle = (cx: number, cy: number, r: number): Path => outlineOf({ kind: 'ellipse', cx, cy, rx: r, ry: r });

function cleanDrawing(seed: number): Clean & { random: () => number } {
  seedNow = seed;
  const random = numbersFrom(seed);
  const between = (low: number, high: number) => low + (high - low) * random();
  const count = 6 + Math.floor(random() * 6);
  const plates = Array.from({ length: count }, (_, i): Plate => {
    const [x, y] = [20 + 66 * (i % 6), 20 + 66 * Math.floor(i / 6)];
    const [width, height] = [between(30, 58), between(35, 58)];
    const rounded = outlineOf({ kind: 'rectangle', x, y, width, height, rx: 3, ry: 3 });
    return {
      x,
      y,
      edge: named(drawn(random() < 0.5 ? rounded : box(x, y, width, height), 'cut'), `edge-${i}`),
      hole: named(
        drawn(random() < 0.5 ? circle(x + 8, y + 8, between(2, 3)) : box(x + 5, y + 5, between(4, 7)), 'cut'),
        `hole-${i}`,
      ),
      fold: named(drawn(line(x + 4, y + 30, x + 26, y + 30), 'score'), `fold-${i}`),
      figure: named(drawn(box(x + 17, y + 6, between(4, 8), between(4, 8)), 'engrave'), `figure-${i}`),
    };
  });
  const items = plates.flatMap(({ edge, hole, fold, figure }) => [figure, fold, hole, edge]);
  const settings = { cut: { kerfMm: random() < 0.5 ? 0 : between(0.05, 0.3) } };
  return { job: jobWith(items, { sheets: [sheet], settings }), plates, random };
}

const withItems = (job: JobDocument, change: (items: readonly Item[]) => readonly Item[]): JobDocument => ({
  ...job,
  drawing: { ...job.drawing, items: change(job.drawing.items) },
});
const added = (job: JobDocument, entry: Item) => withItems(job, (items) => [...items, entry]);
const replaced = (job: JobDocument, was: Item, is: Item) =>
  withItems(job, (items) => items.map((entry) => (entry === was ? is : entry)));
const moved = (job: JobDocument, { edge, hole, fold, figure }: Plate, dx: number) =>
  withItems(job, (items) =>
    items.map((entry) =>
      [edge, hole, fold, figure].includes(entry) ? { ...entry, matrix: translation(dx, 0) } : entry,
    ),
  );
const like = (operation: Operation) => operationOf(operation).colour;
/** An open line through points, and back. */
const openLine = (...points: number[]) => line(...points);

/** Every fault there is, by name. Each takes a clean plate and whatever else has been broken so far. */
const faults: Record<string, (job: JobDocument, plate: Plate, random: () => number) => Fault> = {
  'an edge twice': (job, { hole }) => {
    const twin = { ...hole, id: `${hole.id}-twin` };
    return { job: added(job, twin), code: 'line-drawn-twice', itemIds: [hole.id, twin.id] };
  },
  'a fold twice, the other way round': (job, { x, y, fold }) => {
    const twin = named(drawn(line(x + 26, y + 30, x + 4, y + 30), 'score'), `${fold.id}-back`);
    return { job: added(job, twin), code: 'line-drawn-twice', itemIds: [fold.id, twin.id] };
  },
  'a gap in an outline': (job, { x, y, hole }, random) => {
    const gap = 0.005 + 0.01 * random();
    const open = {
      ...hole,
      shape: {
        kind: 'path' as const,
        path: openLine(x + 5, y + 5, x + 11, y + 5, x + 11, y + 11, x + 5, y + 11, x + 5, y + 5 + gap),
      },
    };
    return { job: replaced(job, hole, open), code: 'open-cut', itemIds: [hole.id] };
  },
  'a gap in a fold': (job, { x, y, fold }, random) => {
    const half = 0.002 + 0.005 * random();
    const first = { ...fold, shape: { kind: 'path' as const, path: line(x + 4, y + 30, x + 15 - half, y + 30) } };
    const second = named(drawn(line(x + 15 + half, y + 30, x + 26, y + 30), 'score'), `${fold.id}-rest`);
    return { job: added(replaced(job, fold, first), second), code: 'tiny-gap', itemIds: [fold.id, second.id] };
  },
  'a stray point': (job, { x, y, fold }) => {
    const point = named(
      drawn(
        new PathBuilder()
          .moveTo(x + 12, y + 20)
          .lineTo(x + 12, y + 20)
          .build(),
        'score',
      ),
      `${fold.id}-point`,
    );
    return { job: added(job, point), code: 'left-over', itemIds: [point.id] };
  },
  'a speck': (job, { x, y, edge }) => {
    const speck = named(drawn(box(x + 14, y + 20, 0.02), 'cut'), `${edge.id}-speck`);
    return { job: added(job, speck), code: 'left-over', itemIds: [speck.id] };
  },
  'a colour a little off': (job, { edge }) => {
    const off = { ...edge, paint: { ...edge.paint, stroke: '#D8542A' } };
    return {
      job: replaced(job, edge, off),
      code: 'colour-without-meaning',
      itemIds: [edge.id],
      words: /^Treat as Cut/,
      // Without its edge, a plate's hole is a piece.
      besides: ['drops', 'tips'],
    };
  },
  'an engraving twice': (job, { figure }) => {
    const twin = { ...figure, id: `${figure.id}-twin` };
    return { job: added(job, twin), code: 'fills-cancel', itemIds: [figure.id, twin.id] };
  },
  'a hidden leftover': (job, { x, y, edge }) => {
    const left = { ...named(drawn(box(x + 20, y + 20, 5), 'cut'), `${edge.id}-hidden`), hidden: true };
    return { job: added(job, left), code: 'hidden-parts', itemIds: [left.id], words: /^Remove for good/ };
  },
  'a bar between scan lines': (job, { x, y, figure }) => {
    // Lines are 0.1 mm apart: one of the two lies between them.
    const bars = [22, 22.05].map((dy) =>
      named(drawn(box(x + 18, y + dy + 2 * (dy - 22) * 20, 6, 0.02), 'engrave'), `${figure.id}-bar-${dy}`),
    );
    return {
      job: bars.reduce(added, job),
      code: 'missed-by-beam',
      itemIds: [],
      words: /^Score/,
      besides: ['fine-detail'],
    };
  },
  'an engraving too fine': (job, { x, y, figure }) => {
    const thin = named(drawn(box(x + 18, y + 22, 6, 0.12), 'engrave'), `${figure.id}-thin`);
    return { job: added(job, thin), code: 'fine-detail', itemIds: [thin.id] };
  },
  'white over an engraving': (job, { figure, x, y }) => {
    const paint = { stroke: null, strokeWidthMm: 0, fill: '#FFFFFF' };
    const white = { ...named(drawn(box(x + 18.5, y + 7.5, 1.5), null), `${figure.id}-white`), paint };
    return { job: added(job, white), code: 'white-over', itemIds: [white.id], besides: ['colour-without-meaning'] };
  },
  'a slot over the edge': (job, { edge, x, y }) => {
    // The clean plate has the slot as a part of its edge.
    const slot = named(drawn(box(x - 3, y + 20, 9, 4), 'cut'), `${edge.id}-slot`);
    return { job: added(job, slot), code: 'cuts-cross', itemIds: [edge.id, slot.id], besides: ['drops', 'tips'] };
  },
  'a bend that is cut': (job, { edge, fold, x, y }) => {
    const plate = { ...edge, shape: { kind: 'path' as const, path: box(x, y, 40, 50) } };
    const bend = {
      ...fold,
      shape: { kind: 'path' as const, path: line(x, y + 30, x + 40, y + 30) },
      paint: { ...fold.paint, stroke: like('cut') },
    };
    return {
      job: replaced(replaced(job, edge, plate), fold, bend),
      code: 'cut-in-two',
      itemIds: [fold.id],
      besides: ['order-broken'],
    };
  },
};

/** Faults of the whole job, of which each drawing has one at most. */
const wholeFaults: Record<string, (clean: Clean, job: JobDocument) => Fault> = {
  'a plate off the bed': ({ plates: [first] }, job) => ({
    job: moved(job, first, -32.5),
    code: 'off-bed',
    itemIds: [first.edge.id],
    besides: ['into-margin', 'run-up-short'],
  }),
  'a plate in the margin': ({ plates: [first] }, job) => ({
    job: moved(job, first, -17.5),
    code: 'into-margin',
    itemIds: [first.edge.id],
    besides: ['run-up-short'],
  }),
  'the sheet over the edge': (_, job) => ({
    job: { ...job, sheets: [{ ...sheet, x: -7 }] },
    code: 'sheet-off-bed',
    itemIds: [],
  }),
  'edges cut before what is in them': (_, job) => ({
    job: setBurning(
      withItems(job, (items) => {
        const edges = items.filter(({ id }) => id.includes('edge'));
        return [...edges, ...items.filter((entry) => !edges.includes(entry))];
      }),
      'cut',
      { order: 'as-drawn' },
    ),
    code: 'order-broken',
    itemIds: [],
  }),
  'a layer switched off': (_, job) => ({ job: switchLayer(job, 'score', false), code: 'layer-off', itemIds: [] }),
  'too much power': (_, job) => ({
    job: { ...job, settings: { ...job.settings, cut: { ...job.settings.cut, powerPercent: 130 } } },
    code: 'beyond-machine',
    itemIds: [],
  }),
  mirrored: (_, job) => ({ job: changeRun(job, 'run-1', { mirrored: true }), code: 'mirrored-opaque', itemIds: [] }),
};

function findingsOf(job: JobDocument): Finding[] {
  const prepared = prepareJob(job, learnt);
  return checkJob(prepared, planJob(prepared));
}

/** What comes out, in hundredths of a millimetre. */
function piecesOf(job: JobDocument): number[][] {
  return piecesBySize(prepareJob(job, learnt)).flatMap(({ count, widthMm, heightMm, isWaste }) =>
    Array.from({ length: count }, () => [widthMm, heightMm, isWaste ? 1 : 0]),
  );
}

/** Mends everything that is found, each by the way that is named for it, else its first; as often as something is left. */
function mendAll(job: JobDocument, wanted: ReadonlyMap<Finding['code'], RegExp>): { job: JobDocument; rounds: number } {
  let now = job;
  for (let rounds = 0; rounds < 8; rounds++) {
    const offered = findingsOf(now).flatMap(({ code, mends = [] }): Mend[] => {
      const words = wanted.get(code);
      return mends.filter((mend) => !words || words.test(mend.words)).slice(0, 1);
    });
    const [mend] = offered;
    if (!mend) return { job: now, rounds };
    now = mended(now, mend);
  }
  return { job: now, rounds: 8 };
}

/** What the clean drawing has instead of two things that a fault makes of one. */
function cleaned(job: JobDocument, names: readonly (readonly [string, Plate])[]): JobDocument {
  return names.reduce((now, [name, { edge, hole, x, y, fold }]) => {
    const as = (entry: Item, path: Path) =>
      withItems(now, (items) =>
        items.map((known) => (known.id === entry.id ? { ...known, shape: { kind: 'path', path } } : known)),
      );
    if (name === 'a slot over the edge' && edge.shape.kind === 'path') {
      const outlines = [edge.shape.path, box(x - 3, y + 20, 9, 4)].map((path) => ({ path, rule: 'nonzero' as const }));
      return as(edge, combineOutlines(outlines, 'subtract'));
    }
    if (name === 'a gap in an outline') return as(hole, box(x + 5, y + 5, 6));
    if (name === 'a bend that is cut') {
      const plate = as(edge, box(x, y, 40, 50));
      return withItems(plate, (items) =>
        items.map((known) =>
          known.id === fold.id ? { ...known, shape: { kind: 'path', path: line(x, y + 30, x + 40, y + 30) } } : known,
        ),
      );
    }
    return now;
  }, job);
}

const seeds = Array.from({ length: 40 }, (_, i) => 20_261_128 + i);

describe('drawings that are broken', () => {
  const tried = new Set<string>();

  test.each(seeds)('%p: every fault is found, none invented, and all is mended', (seed) => {
    const clean = cleanDrawing(seed);
    expect(findingsOf(clean.job)).toEqual([]);
    const { plates, random } = clean;
    const names = Object.keys(faults);
    // Every fault has its turn, each with one or two others on other plates.
    const chosen = [
      seed % names.length,
      ...Array.from({ length: 1 + Math.floor(random() * 2) }, () => Math.floor(random() * names.length)),
    ];
    const broken: Fault[] = [];
    const done: [string, Plate][] = [];
    let job = clean.job;
    [...new Set(chosen)].forEach((choice, i) => {
      const plate = plates[i + 1];
      const fault = faults[names[choice]](job, plate, random);
      job = fault.job;
      broken.push(fault);
      done.push([names[choice], plate]);
      tried.add(names[choice]);
    });
    const wholes = Object.keys(wholeFaults);
    const whole = wholeFaults[wholes[seed % wholes.length]](clean, job);
    job = whole.job;
    broken.push(whole);
    tried.add(wholes[seed % wholes.length]);

    const found = findingsOf(job);
    const codes = new Set(broken.flatMap(({ code, besides = [] }) => [code, ...besides]));
    expect(found.map(({ code }) => code).filter((code) => !codes.has(code))).toEqual([]);
    for (const { code, itemIds } of broken) {
      const told = found.filter((entry) => entry.code === code).flatMap((entry) => entry.itemIds);
      expect(found.map((entry) => entry.code)).toContain(code);
      for (const id of itemIds) expect(told).toContain(id);
    }

    const wanted = new Map(
      broken.flatMap(({ code, words }): [Finding['code'], RegExp][] => (words ? [[code, words]] : [])),
    );
    const after = mendAll(job, wanted).job;
    expect(findingsOf(after)).toEqual([]);
    const [now, then] = [after, cleaned(clean.job, done)].map(piecesOf);
    expect(now).toHaveLength(then.length);
    now.forEach((piece, i) => {
      for (const side of [0, 1]) expect(Math.abs(piece[side] - then[i][side])).toBeLessThanOrEqual(0.011);
      expect(piece[2]).toBe(then[i][2]);
    });
  });

  test('have had every fault there is', () => {
    expect([...tried].sort()).toEqual([...Object.keys(faults), ...Object.keys(wholeFaults)].sort());
  });
});
