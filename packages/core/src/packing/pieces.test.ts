import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { identity } from '../geometry/paths/matrix.ts';
import { type Path, PathBuilder, pathBounds } from '../geometry/paths/path.ts';
import { disc, rectangle } from './fixtures.ts';
import { drawnPieces } from './pieces.ts';

function item(id: string, path: Path, groupId: string | null = null): Item {
  const paint = { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null };
  return {
    ...{ id, name: null, matrix: identity, paint, fillRule: 'nonzero', groupId, pinned: null, hidden: false },
    shape: { kind: 'path', path },
  };
}

const line = (x0: number, y0: number, x1: number, y1: number) =>
  new PathBuilder().moveTo(x0, y0).lineTo(x1, y1).build();
const idsOf = (items: readonly Item[]) => items.map(({ id }) => id).sort();

describe('the pieces of a drawing', () => {
  test('each outermost outline with what lies in it: holes, open lines, and what lies in holes', () => {
    const { pieces, loose } = drawnPieces([
      item('plate', rectangle(100, 60)),
      item('hole', rectangle(20, 20, 10, 10)),
      item('in the hole', rectangle(5, 5, 15, 15)),
      item('score', line(50, 20, 90, 20)),
      item('edge to edge', line(0, 40, 100, 40)),
      item('other', rectangle(30, 30, 200, 0)),
      item('beside', line(150, 0, 160, 0)),
    ]);
    expect(pieces.map(({ items }) => idsOf(items))).toEqual([
      ['edge to edge', 'hole', 'in the hole', 'plate', 'score'],
      ['other'],
    ]);
    expect(idsOf(loose)).toEqual(['beside']);
    expect(pathBounds(pieces[0].outline)).toEqual({ minX: 0, minY: 0, maxX: 100, maxY: 60 });
    expect([...pieces[0].outline.verbs].filter((verb) => verb === 0)).toHaveLength(3);
  });

  test('only what is said to be an edge is one: what is engraved within is no hole', () => {
    const plate = item('plate', rectangle(100, 60));
    const engraved = item('engraved', disc(8));
    const moved = { ...engraved, matrix: [1, 0, 0, 1, 50, 30] as const };
    const { pieces } = drawnPieces([plate, moved], new Set([plate]));
    expect(pieces.map(({ items }) => idsOf(items))).toEqual([['engraved', 'plate']]);
    expect([...pieces[0].outline.verbs].filter((verb) => verb === 0)).toHaveLength(1);
  });

  test('groups stay whole where that is wished for, and items of several outlines always do', () => {
    const two = rectangle(10, 10);
    const both: Path = {
      verbs: Uint8Array.from([...two.verbs, ...two.verbs]),
      coords: Float64Array.from([
        ...two.coords,
        ...[...two.coords].map((value, i) => (i % 2 === 0 ? value + 40 : value)),
      ]),
    };
    const items = [item('pair', both), item('a', rectangle(5, 5, 0, 50), 'g'), item('b', rectangle(5, 5, 20, 50), 'g')];
    const sizes = (groupOf?: (item: Item) => string | null) =>
      drawnPieces(items, new Set(items), groupOf).pieces.map(({ items }) => idsOf(items));
    expect(sizes()).toEqual([['pair'], ['a'], ['b']]);
    expect(sizes(({ groupId }) => groupId)).toEqual([['pair'], ['a', 'b']]);
  });
});
