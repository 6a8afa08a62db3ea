import { describe, expect, test } from '@jest/globals';
import { build, builders, type Solid } from '@lambent/core/builders';
import { boxContains, PathBuilder, pathBounds, signedArea } from '@lambent/core/geometry';
import { Vector3 } from 'three';
import { geometryOf, linesOn, pictureOn } from './solid-geometry.ts';

const plays = { loose: 0.3, sliding: 0.15, snug: 0.05, press: -0.05 };

function solidsOf(word: string, numbers: Record<string, unknown> = {}): readonly Solid[] {
  const builder = builders.find((known) => known.word === word) as (typeof builders)[number];
  const plate = new PathBuilder().ring([-50, -40, 50, -40, 50, 40, -50, 40]).build();
  const outlines = (builder.takes ?? []).map((name) => ({ name, path: plate }));
  const answer = build(builder, numbers, { thicknessMm: word === 'folded' ? 0.5 : 3, plays }, outlines);
  if (!answer.ok) throw new Error(answer.troubles[0].message);
  return answer.built.assembly.solids;
}

/** What triangles enclose, by the sum of the tetrahedra to the middle of space, in mm³. */
function volumeOf(solid: Solid): number {
  const { position } = geometryOf(solid).attributes;
  const corner = (i: number) => new Vector3().fromBufferAttribute(position, i);
  let sum = 0;
  for (let i = 0; i < position.count; i += 3) sum += corner(i).dot(corner(i + 1).cross(corner(i + 2))) / 6;
  return sum;
}

/** What its rings enclose, those within another as holes, in mm². */
function areaOf({ outlines }: Solid): number {
  const boxes = outlines.map(({ points }) => pathBounds(new PathBuilder().ring(points).build()));
  return outlines.reduce((sum, line, i) => {
    const isHole = boxes.some((box, k) => k !== i && boxContains(box, boxes[i]));
    return sum + (isHole ? -1 : 1) * Math.abs(signedArea(line));
  }, 0);
}

describe('a solid as triangles', () => {
  test.each<[string, Record<string, unknown>]>([
    ['box', { dividersAcross: 1, dividersAlong: 1, lid: 'slides' }],
    ['box', { handle: 'front', relief: 'bone' }],
    ['folded', { window: true }],
    ['grid', {}],
    ['base', { channel: 'left', plate: true }],
    ['bend', {}],
    ['bend', { shape: 'box', closed: true }],
    ['box', { lid: 'hinged' }],
    ['joint', { kind: 'flex' }],
    ['figure', { firstTurn: 20 }],
  ])('of %s %j fills what its outline and holes say', (word, numbers) => {
    for (const solid of solidsOf(word, numbers)) {
      expect(volumeOf(solid) / (areaOf(solid) * solid.depth)).toBeCloseTo(1, 4);
    }
  });
});

test('lines are drawn where they lie on the face, above it, and not over its holes', () => {
  const square = (from: number, to: number) => ({
    points: new Float64Array([from, from, to, from, to, to, from, to]),
    closed: true,
  });
  const plate: Solid = {
    partId: 'plate',
    outlines: [square(0, 20), square(8, 12)],
    place: { origin: [100, 0, 50], u: [1, 0, 0], v: [0, -1, 0] },
    depth: 3,
  };
  const line = new Float64Array([2, 10, 6, 10, 11, 10, 18, 10, 26, 10]);
  const { position } = linesOn(plate, [line]).attributes;
  const places = Array.from({ length: position.count }, (_, i) => new Vector3().fromBufferAttribute(position, i));
  // From 6 to 11 its middle lies over the hole, from 18 to 26 beside the plate.
  expect(places.map(({ x }) => x)).toEqual([102, 106, 111, 118].map((x) => expect.closeTo(x, 4)));
  for (const { y, z } of places) expect([y, z]).toEqual([expect.closeTo(-10, 4), expect.closeTo(50.05, 4)]);
});

test('a picture lies on the face with its own corners, a little above it', () => {
  const plate: Solid = {
    ...{ partId: 'plate', outlines: [], depth: 3 },
    place: { origin: [100, 0, 50], u: [1, 0, 0], v: [0, -1, 0] },
  };
  const corners = [
    { x: 2, y: 1 },
    { x: 12, y: 1 },
    { x: 12, y: 6 },
    { x: 2, y: 6 },
  ];
  const { position, uv } = pictureOn(plate, corners).attributes;
  const places = Array.from({ length: 4 }, (_, i) => new Vector3().fromBufferAttribute(position, i).toArray());
  expect(places).toEqual(corners.map(({ x, y }) => [100 + x, -y, 50.025].map((mm) => expect.closeTo(mm, 4))));
  // The picture's first row of pixels is at its first two corners.
  expect([...uv.array]).toEqual([0, 0, 1, 0, 1, 1, 0, 1]);
});
