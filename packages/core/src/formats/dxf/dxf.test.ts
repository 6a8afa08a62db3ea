import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf, boundsOfAll, type Item, pathOf, polylinesOf } from '../../document/item.ts';
import { codesOf, dxf, idFor, testFonts } from '../../fixtures/files.ts';
import { polylineLength } from '../../geometry/paths/flatten.ts';
import { FileRefused } from '../refusal.ts';
import { readDxf } from './read.ts';

type Pairs = readonly (readonly [number, string | number])[];

const metric: Pairs = [
  [9, '$INSUNITS'],
  [70, 4],
];
const read = (entities: Pairs, more: Record<string, Pairs> = {}) =>
  readDxf(dxf({ HEADER: metric, ...more, ENTITIES: entities }), idFor, testFonts);
const sizeOf = (items: readonly Item[]) => {
  const { minX, minY, maxX, maxY } = boundsOfAll(items);
  return [maxX - minX, maxY - minY];
};
const lengthOf = (item: Item) => polylinesOf(item).reduce((sum, line) => sum + polylineLength(line), 0);
const line = (x1: number, y1: number, x2: number, y2: number, more: Pairs = []): Pairs => [
  [0, 'LINE'],
  [8, 'Cut'],
  ...more,
  [10, x1],
  [20, y1],
  [11, x2],
  [21, y2],
];

describe('entities, against what is known of them', () => {
  const arc: Pairs = [
    [0, 'ARC'],
    [10, 0],
    [20, 0],
    [40, 10],
    [50, 0],
    [51, 90],
  ];
  const lightweight = (closed: number, vertices: readonly (readonly [number, number, number])[]): Pairs => [
    [0, 'LWPOLYLINE'],
    [90, vertices.length],
    [70, closed],
    ...vertices.flatMap(
      ([x, y, bulge]): Pairs => [
        [10, x],
        [20, y],
        [42, bulge],
      ],
    ),
  ];
  test.each<[string, Pairs, number[], number]>([
    ['LINE', line(0, 0, 30, 40), [30, 40], 50],
    [
      'CIRCLE',
      [
        [0, 'CIRCLE'],
        [10, 5],
        [20, 5],
        [40, 10],
      ],
      [20, 20],
      20 * Math.PI,
    ],
    ['ARC', arc, [10, 10], 5 * Math.PI],
    ['ARC over zero', [...arc.slice(0, 4), [50, 270], [51, 90]], [10, 20], 10 * Math.PI],
    [
      'half ELLIPSE',
      [
        [0, 'ELLIPSE'],
        [10, 0],
        [20, 0],
        [11, 0],
        [21, 20],
        [40, 0.5],
        [41, 0],
        [42, Math.PI],
      ],
      [10, 40],
      48.442,
    ],
    [
      'LWPOLYLINE with a half circle',
      lightweight(1, [
        [0, 0, 0],
        [20, 0, 1],
        [20, 10, 0],
        [0, 10, 0],
      ]),
      [25, 10],
      40 + 10 + 5 * Math.PI,
    ],
    [
      'LWPOLYLINE bulging inwards',
      lightweight(0, [
        [0, 0, -1],
        [20, 0, 0],
      ]),
      [20, 10],
      10 * Math.PI,
    ],
    [
      'SOLID',
      [
        [0, 'SOLID'],
        [10, 0],
        [20, 0],
        [11, 10],
        [21, 0],
        [12, 0],
        [22, 5],
        [13, 10],
        [23, 5],
      ],
      [10, 5],
      30,
    ],
    [
      '3DFACE',
      [
        [0, '3DFACE'],
        [10, 0],
        [20, 0],
        [11, 8],
        [21, 0],
        [12, 8],
        [22, 6],
      ],
      [8, 6],
      24,
    ],
    [
      'rational SPLINE that is a quarter circle',
      [
        [0, 'SPLINE'],
        [71, 2],
        ...[0, 0, 0, 1, 1, 1].map((k) => [40, k] as const),
        ...[1, Math.SQRT1_2, 1].map((w) => [41, w] as const),
        [10, 10],
        [20, 0],
        [10, 10],
        [20, 10],
        [10, 0],
        [20, 10],
      ],
      [10, 10],
      5 * Math.PI,
    ],
    [
      'straight SPLINE of degree 3 with inner knots',
      [
        [0, 'SPLINE'],
        [71, 3],
        ...[0, 0, 0, 0, 1, 2, 2, 2, 2].map((k) => [40, k] as const),
        ...[0, 1, 3, 5, 6].flatMap(
          (x): Pairs => [
            [10, x],
            [20, 0],
          ],
        ),
      ],
      [6, 0],
      6,
    ],
    [
      'POLYLINE of old',
      [
        [0, 'POLYLINE'],
        [66, 1],
        [70, 1],
        [0, 'VERTEX'],
        [10, 0],
        [20, 0],
        [42, 1],
        [0, 'VERTEX'],
        [10, 10],
        [20, 0],
        [42, 1],
        [0, 'SEQEND'],
      ],
      [10, 10],
      10 * Math.PI,
    ],
    [
      'HATCH of lines with a round hole',
      [
        [0, 'HATCH'],
        [70, 1],
        [91, 2],
        [92, 0],
        [93, 4],
        ...[
          [0, 0, 10, 0],
          [10, 0, 10, 10],
          [10, 10, 0, 10],
          [0, 10, 0, 0],
        ].flatMap(
          ([a, b, c, d]): Pairs => [
            [72, 1],
            [10, a],
            [20, b],
            [11, c],
            [21, d],
          ],
        ),
        [92, 0],
        [93, 1],
        [72, 2],
        [10, 5],
        [20, 5],
        [40, 2],
        [50, 0],
        [51, 360],
        [73, 1],
      ],
      [10, 10],
      40 + 4 * Math.PI,
    ],
  ])('%s', (_, entities, size, length) => {
    const { drawing } = read(entities);
    expect(drawing.items).toHaveLength(1);
    const [width, height] = sizeOf(drawing.items);
    expect(width).toBeCloseTo(size[0], 2);
    expect(height).toBeCloseTo(size[1], 2);
    expect(Math.abs(lengthOf(drawing.items[0]) - length)).toBeLessThan(0.03);
  });

  test('what stands upside down is mirrored', () => {
    const { drawing } = read([
      ...line(0, 0, 30, 0),
      ...arc.map(([code, value]) => [code, value] as const),
      [210, 0],
      [220, 0],
      [230, -1],
    ]);
    // A quarter circle from 0° to 90° about the origin, mirrored, lies to the left of it.
    expect(boundsOf(drawing.items[1]).maxX).toBeCloseTo(boundsOf(drawing.items[0]).minX, 6);
  });
});

describe('blocks', () => {
  const blocks: Pairs = [
    [0, 'BLOCK'],
    [2, 'Leaf'],
    [10, 1],
    [20, 1],
    ...line(1, 1, 3, 1),
    [0, 'ENDBLK'],
    [0, 'BLOCK'],
    [2, 'Twig'],
    ...([
      [0, 'INSERT'],
      [2, 'Leaf'],
      [10, 0],
      [20, 0],
    ] as Pairs),
    [0, 'ENDBLK'],
    [0, 'BLOCK'],
    [2, 'Loop'],
    [0, 'INSERT'],
    [2, 'Loop'],
    [0, 'ENDBLK'],
  ];
  const insert = (name: string, more: Pairs): Pairs => [[0, 'INSERT'], [2, name], [10, 0], [20, 0], ...more];

  test('nested, scaled and turned, in rows and columns', () => {
    const { drawing } = read(
      insert('Twig', [
        [41, 2],
        [42, -3],
        [50, 90],
        [70, 3],
        [71, 2],
        [44, 10],
        [45, 20],
      ]),
      { BLOCKS: blocks },
    );
    expect(drawing.items).toHaveLength(6);
    for (const item of drawing.items) expect(lengthOf(item)).toBeCloseTo(4, 9);
    const [width, height] = sizeOf(drawing.items);
    expect(width).toBeCloseTo(20, 9);
    expect(height).toBeCloseTo(24, 9);
  });

  test('one that holds itself ends, and is said', () => {
    expect(codesOf(read(insert('Loop', []), { BLOCKS: blocks }))).toContain('block-in-itself');
    expect(codesOf(read(insert('Nothing', []), { BLOCKS: blocks }))).toContain('block-missing');
  });
});

describe('colours and layers', () => {
  const tables: Pairs = [
    [0, 'LAYER'],
    [2, 'Cut'],
    [62, 1],
    [70, 0],
    [0, 'LAYER'],
    [2, 'Off'],
    [62, -5],
    [0, 'LAYER'],
    [2, 'Frozen'],
    [62, 3],
    [70, 1],
  ];
  test('by layer, by index, true colour; layers that do not show come hidden', () => {
    const { drawing, notes } = read(
      [
        ...line(0, 0, 1, 0),
        ...line(0, 5, 1, 5, [[62, 30]]),
        ...line(0, 9, 1, 9, [[420, 0xd0481e]]),
        [0, 'LINE'],
        [8, 'Off'],
        [11, 4],
        [0, 'LINE'],
        [8, 'Frozen'],
        [11, 4],
        [21, 1],
      ],
      { TABLES: tables },
    );
    expect(drawing.items.map(({ paint, hidden }) => [paint.stroke, hidden])).toEqual([
      ['#FF0000', false],
      ['#FF7F00', false],
      ['#D0481E', false],
      ['#0000FF', true],
      ['#00FF00', true],
    ]);
    expect(drawing.groups.map(({ name }) => name)).toEqual(['Cut', 'Off', 'Frozen']);
    expect(notes.find(({ code }) => code === 'hidden-left-out')).toMatchObject({
      count: 2,
      itemIds: [drawing.items[3].id, drawing.items[4].id],
    });
  });
});

test('loose lines whose ends nearly meet become one closed outline, the others stay', () => {
  const { drawing, notes } = read([
    ...line(0, 0, 10, 0),
    ...line(10, 10, 10.004, 0.003),
    ...line(10, 10, 0, 10),
    ...line(0, 0, 0, 10),
    ...line(20, 0, 30, 0),
  ]);
  expect(drawing.items).toHaveLength(2);
  expect(polylinesOf(drawing.items[0]).map(({ closed }) => closed)).toEqual([true]);
  expect(lengthOf(drawing.items[0])).toBeCloseTo(40, 1);
  expect(notes.find(({ code }) => code === 'lines-joined')?.message).toMatch(
    '4 loose lines whose ends meet are joined to 1 outline.',
  );
});

describe('size', () => {
  test.each<[string, Pairs, number, boolean]>([
    [
      'inches',
      [
        [9, '$INSUNITS'],
        [70, 1],
      ],
      254,
      true,
    ],
    [
      'centimetres',
      [
        [9, '$INSUNITS'],
        [70, 5],
      ],
      100,
      true,
    ],
    [
      'metric, by $MEASUREMENT',
      [
        [9, '$MEASUREMENT'],
        [70, 1],
      ],
      10,
      true,
    ],
    [
      'imperial, by $MEASUREMENT',
      [
        [9, '$INSUNITS'],
        [70, 0],
        [9, '$MEASUREMENT'],
        [70, 0],
      ],
      254,
      true,
    ],
    ['nothing said', [], 10, false],
  ])('%s', (_, header, width, sure) => {
    const reading = readDxf(dxf({ HEADER: header, ENTITIES: line(0, 0, 10, 0) }), idFor, testFonts);
    expect(sizeOf(reading.drawing.items)[0]).toBeCloseTo(width, 9);
    expect(reading.size.sure).toBe(sure);
    const inch = reading.size.others.find(({ label }) => label === '1 unit = 1 inch');
    expect(width * (inch?.factor ?? 0)).toBeCloseTo(254, 9);
  });

  test('y points up in the file, and the drawing lies on its own page', () => {
    const limits: Pairs = [...metric, [9, '$LIMMIN'], [10, 0], [20, 0], [9, '$LIMMAX'], [10, 200], [20, 100]];
    const { drawing, size } = readDxf(dxf({ HEADER: limits, ENTITIES: line(10, 90, 30, 95) }), idFor, testFonts);
    expect(boundsOf(drawing.items[0])).toMatchObject({ minX: 10, minY: 5, maxX: 30, maxY: 10 });
    expect(size).toMatchObject({ pageWidthMm: 200, pageHeightMm: 100 });
  });
});

describe('text', () => {
  const text = (more: Pairs): Pairs => [[0, 'TEXT'], [1, 'HE'], [10, 0], [20, 0], [40, 7], ...more];
  test('capitals are as high as the file says, and run where it says', () => {
    const [item] = read(text([])).drawing.items;
    expect(sizeOf([item])[1]).toBeCloseTo(7, 1);
    expect(item.paint).toMatchObject({ stroke: null, fill: '#000000' });
    const [turned] = read(text([[50, 90]])).drawing.items;
    expect(sizeOf([turned])[0]).toBeCloseTo(7, 1);
  });
  test('paragraphs of several lines, without their codes', () => {
    const [item] = read([
      [0, 'MTEXT'],
      [40, 5],
      [10, 0],
      [20, 0],
      [71, 1],
      [1, '{\\fSans|b0;H}\\PH'],
    ]).drawing.items;
    expect(item.name).toBe('H\nH');
    expect(sizeOf([item])[1]).toBeCloseTo(5 + 25 / 3, 1);
  });
});

describe('nothing is dropped silently', () => {
  test.each<[string, Pairs]>([
    [
      'point',
      [
        [0, 'POINT'],
        [10, 1],
      ],
    ],
    [
      'entity-not-taken',
      [
        [0, 'WIDGET'],
        [10, 1],
      ],
    ],
    [
      'damaged-entity',
      [
        [0, 'CIRCLE'],
        [40, 0],
      ],
    ],
    ['paper-space', line(0, 0, 1, 1, [[67, 1]])],
    [
      'upright-part',
      [
        [0, 'CIRCLE'],
        [40, 3],
        [210, 1],
        [220, 0],
        [230, 0],
      ],
    ],
    [
      'seen-from-above',
      line(0, 0, 1, 1, [
        [30, 0],
        [31, 5],
      ]),
    ],
    [
      'spline-through-points',
      [
        [0, 'SPLINE'],
        [11, 0],
        [21, 0],
        [11, 5],
        [21, 3],
        [11, 9],
        [21, 0],
      ],
    ],
    [
      'hatch-as-fill',
      [
        [0, 'HATCH'],
        [70, 0],
        [91, 1],
        [92, 2],
        [72, 0],
        [73, 1],
        [93, 3],
        [10, 0],
        [20, 0],
        [10, 4],
        [20, 0],
        [10, 0],
        [20, 3],
      ],
    ],
    ['nothing-drawn', []],
  ])('%s', (code, entities) => {
    expect(codesOf(read(entities))).toContain(code);
  });

  test('a file cut short is read up to there', () => {
    const whole = dxf({ HEADER: metric, ENTITIES: [...line(0, 0, 10, 0), ...line(0, 5, 10, 5)] });
    const reading = readDxf(whole.slice(0, -40), idFor, testFonts);
    expect(reading.drawing.items.length).toBeGreaterThan(0);
    expect(codesOf(reading)).toContain('file-cut-short');
  });

  test('whatever a file is changed to, it is read or refused with a sentence', () => {
    const whole = dxf({
      HEADER: metric,
      BLOCKS: [[0, 'BLOCK'], [2, 'B'], ...line(0, 0, 1, 1), [0, 'ENDBLK']],
      ENTITIES: [
        ...line(0, 0, 10, 0),
        [0, 'INSERT'],
        [2, 'B'],
        [70, 2],
        [0, 'HATCH'],
        [91, 1],
        [92, 2],
        [93, 3],
        [10, 0],
        [20, 0],
      ],
    });
    fc.assert(
      fc.property(fc.nat(whole.length), fc.string({ maxLength: 6 }), fc.nat(9), (at, put, gone) => {
        try {
          readDxf(whole.slice(0, at) + put + whole.slice(at + gone), idFor, testFonts);
        } catch (error) {
          expect(error).toBeInstanceOf(FileRefused);
        }
      }),
      { numRuns: 300 },
    );
  });
});

test('a polyline with bulges has the same length whichever way it is drawn', () => {
  const vertex = fc.record({
    x: fc.integer({ min: 0, max: 90 }),
    y: fc.integer({ min: 0, max: 90 }),
    bulge: fc.double({ min: -2, max: 2, noNaN: true }),
  });
  fc.assert(
    fc.property(
      fc.uniqueArray(vertex, { minLength: 2, maxLength: 8, selector: ({ x, y }) => `${x} ${y}` }),
      (vertices) => {
        const drawn = (list: { x: number; y: number; bulge: number }[]) =>
          read([
            [0, 'LWPOLYLINE'],
            [70, 0],
            ...list.flatMap(
              ({ x, y, bulge }): Pairs => [
                [10, x],
                [20, y],
                [42, bulge],
              ],
            ),
          ]).drawing.items[0];
        const back = vertices
          .toReversed()
          .map(({ x, y }, i, all) => ({ x, y, bulge: -(vertices[all.length - 2 - i]?.bulge ?? 0) }));
        expect(Math.abs(lengthOf(drawn(vertices)) - lengthOf(drawn(back)))).toBeLessThan(0.05);
        expect(pathOf(drawn(vertices)).verbs.length).toBeGreaterThan(1);
      },
    ),
    { numRuns: 60 },
  );
});
