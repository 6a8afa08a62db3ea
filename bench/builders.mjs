// Parts from numbers: how long each builder takes with the check that they go together, as while numbers are dragged.
import { build, builders, reportOfBuilt } from '@lambent/core/builders';
import { PathBuilder, pathData } from '@lambent/core/geometry';

const rounds = 15;
const plays = { loose: 0.3, sliding: 0.15, snug: 0.05, press: -0.05 };

const cases = [
  { what: 'a box with a lid that slides', word: 'box', numbers: { lid: 'slides' }, bound: 50 },
  { what: 'a box with a lid on hinges', word: 'box', numbers: { lid: 'hinged' }, bound: 50 },
  { what: 'a closed box of fine fingers', word: 'box', numbers: { lid: 'closed', fingerWidth: 3 }, bound: 50 },
  {
    what: 'a box with 40 dividers',
    word: 'box',
    numbers: { width: 400, depth: 300, dividersAcross: 20, dividersAlong: 20 },
    bound: 300,
  },
  { what: 'a folded box with its lid', word: 'folded', numbers: { window: true }, thicknessMm: 0.5, bound: 50 },
  { what: 'a grid of 80 cells', word: 'grid', numbers: { cellsAcross: 10, cellsDeep: 8 }, bound: 50 },
  {
    what: 'a round base of ten layers with a plate',
    word: 'base',
    numbers: { outline: 'round', pocket: 'round', layers: 10, pocketLayers: 6, channel: 'left', plate: true },
    bound: 50,
  },
  { what: 'a bent panel', word: 'bend', numbers: {}, bound: 50 },
  { what: 'a box with round corners', word: 'bend', numbers: { shape: 'box', closed: true }, bound: 50 },
  { what: 'a joint of ten tabs that give', word: 'joint', numbers: { kind: 'flex', tabs: 10 }, bound: 50 },
  { what: 'a joint of fine fingers', word: 'joint', numbers: { kind: 'fingers', fingerWidth: 3 }, bound: 50 },
  { what: 'a slotted figure', word: 'figure', numbers: {}, bound: 50 },
];

/** An outline of eighty waves above a flat foot, for builders that work on the operator's own. */
function wavyOutline() {
  const path = new PathBuilder().moveTo(-200, 150).lineTo(-200, -100);
  for (let i = 0; i < 80; i++) {
    const x = -200 + 5 * i;
    path.cubicTo(x + 1, -106, x + 4, -106, x + 5, -100);
  }
  return path.lineTo(200, 150).close().build();
}

const median = (times) => times.sort((a, b) => a - b)[times.length >> 1];

function timed(work) {
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return median(times);
}

/** @returns a row for each: how long it takes in ms, and how long it takes to write its outlines as text */
export function benchBuilders() {
  return cases.map(({ what, word, numbers, thicknessMm = 3, bound }) => {
    const builder = builders.find((known) => known.word === word);
    const outlines = (builder.takes ?? []).map((name) => ({ name, path: wavyOutline() }));
    const make = () => {
      const answer = build(builder, numbers, { thicknessMm, plays }, outlines);
      if (!answer.ok) throw new Error(`${what}: ${answer.troubles[0].message}`);
      return { built: answer.built, figures: reportOfBuilt(answer.built) };
    };
    const { built } = make();
    const textMs = timed(() => built.parts.map(({ cut }) => pathData(cut, 3)));
    return { what, parts: built.parts.length, ms: timed(make), textMs, bound };
  });
}
