import { describe, expect, test } from '@jest/globals';
import { dxf, idFor, testFonts } from '../../fixtures/files.ts';
import { unreadCodes } from './codes.ts';
import { readDxf } from './read.ts';

/*
 * The group codes that bear on where an entity lies, what it looks like and in which colour: each changes what is read,
 * or is noted. What only bears on the third dimension or on how a program edits a drawing is not among them.
 */

type Pairs = readonly (readonly [number, string | number])[];

const layers: Pairs = [
  [0, 'LAYER'],
  [2, 'Cut'],
  [62, 1],
  [6, 'CONTINUOUS'],
  [0, 'LAYER'],
  [2, 'Off'],
  [62, -1],
  [0, 'LAYER'],
  [2, 'Frozen'],
  [70, 1],
  [0, 'LAYER'],
  [2, 'Dashed'],
  [6, 'DASHED'],
  [0, 'LAYER'],
  [2, 'Unplotted'],
  [290, 0],
  [0, 'STYLE'],
  [2, 'serif'],
  [3, 'bitter.ttf'],
  [1000, 'Bitter'],
];
const blocks: Pairs = [
  [0, 'BLOCK'],
  [2, 'B'],
  [10, 0],
  [20, 0],
  [0, 'LINE'],
  [8, '0'],
  [62, 0],
  [10, 0],
  [20, 0],
  [11, 5],
  [21, 2],
  [0, 'ENDBLK'],
];

/** A plain entity of each kind; a ring at the origin goes along, so that a shift shows. */
const entities: Record<string, Pairs> = {
  LINE: [
    [10, 20],
    [20, 20],
    [11, 30],
    [21, 25],
  ],
  CIRCLE: [
    [10, 20],
    [20, 20],
    [40, 5],
  ],
  ARC: [
    [10, 20],
    [20, 20],
    [40, 5],
    [50, 10],
    [51, 80],
  ],
  ELLIPSE: [
    [10, 20],
    [20, 20],
    [11, 9],
    [21, 2],
    [40, 0.5],
    [41, 0.2],
    [42, 2],
  ],
  LWPOLYLINE: [
    [90, 3],
    [10, 20],
    [20, 20],
    [10, 30],
    [20, 20],
    [10, 30],
    [20, 28],
  ],
  SPLINE: [
    [71, 3],
    ...[0, 0, 0, 0, 1, 1, 1, 1].map((knot) => [40, knot] as const),
    ...[
      [0, 0],
      [5, 9],
      [9, -3],
      [12, 4],
    ].flatMap(
      ([x, y]) =>
        [
          [10, 20 + x],
          [20, 20 + y],
        ] as const,
    ),
  ],
  HATCH: [
    [70, 1],
    [91, 1],
    [92, 2],
    [72, 0],
    [73, 1],
    [93, 3],
    [10, 20],
    [20, 20],
    [10, 30],
    [20, 20],
    [10, 30],
    [20, 28],
  ],
  SOLID: [
    [10, 20],
    [20, 20],
    [11, 30],
    [21, 20],
    [12, 20],
    [22, 30],
    [13, 30],
    [23, 30],
  ],
  '3DFACE': [
    [10, 20],
    [20, 20],
    [11, 30],
    [21, 20],
    [12, 30],
    [22, 30],
    [13, 20],
    [23, 30],
  ],
  TEXT: [
    [10, 20],
    [20, 20],
    [40, 5],
    [1, 'Ab'],
  ],
  MTEXT: [
    [10, 20],
    [20, 20],
    [40, 5],
    [41, 30],
    [1, 'Ab cd\\Pe'],
  ],
  INSERT: [
    [2, 'B'],
    [10, 20],
    [20, 20],
  ],
};

/** What is said by each code, on an entity that has it. */
const samples: readonly [type: keyof typeof entities, said: Pairs][] = [
  ...Object.keys(entities).flatMap((type): [string, Pairs][] => [
    [type, [[60, 1]]],
    [type, [[67, 1]]],
    [type, [[8, 'Off']]],
    [type, [[8, 'Frozen']]],
    [type, [[62, 3]]],
    [type, [[420, 255]]],
    [type, [[440, 0x02000080]]],
    [type, [[6, 'DASHED']]],
    [type, [[8, 'Dashed']]],
    [type, [[8, 'Unplotted']]],
  ]),
  ...['CIRCLE', 'ARC', 'ELLIPSE', 'LWPOLYLINE', 'HATCH', 'SOLID', 'TEXT', 'INSERT'].map((type): [string, Pairs] => [
    type,
    [
      [210, 0],
      [220, 0],
      [230, -1],
    ],
  ]),
  [
    'LINE',
    [
      [30, 0],
      [31, 7],
    ],
  ],
  ['LWPOLYLINE', [[70, 1]]],
  ['LWPOLYLINE', [[43, 2]]],
  ['SPLINE', [[70, 1]]],
  [
    'SPLINE',
    [
      [41, 3],
      [41, 1],
      [41, 1],
      [41, 1],
    ],
  ],
  ['HATCH', [[75, 1]]],
  ['HATCH', [[450, 1]]],
  ['3DFACE', [[70, 1]]],
  ['TEXT', [[7, 'serif']]],
  ['TEXT', [[41, 2]]],
  ['TEXT', [[50, 30]]],
  ['TEXT', [[51, 15]]],
  ['TEXT', [[71, 2]]],
  [
    'TEXT',
    [
      [72, 2],
      [11, 20],
      [21, 20],
    ],
  ],
  [
    'TEXT',
    [
      [73, 3],
      [11, 20],
      [21, 20],
    ],
  ],
  ['MTEXT', [[7, 'serif']]],
  ['MTEXT', [[44, 2]]],
  ['MTEXT', [[50, 30]]],
  ['MTEXT', [[71, 5]]],
  ['MTEXT', [[72, 3]]],
  [
    'MTEXT',
    [
      [11, 0],
      [21, 1],
    ],
  ],
  ['MTEXT', [[3, '\\C1;Ab']]],
  ['INSERT', [[41, 2]]],
  ['INSERT', [[42, 2]]],
  ['INSERT', [[50, 30]]],
  [
    'INSERT',
    [
      [70, 2],
      [44, 9],
    ],
  ],
  [
    'INSERT',
    [
      [71, 2],
      [45, 9],
    ],
  ],
];

const ring: Pairs = [
  [0, 'CIRCLE'],
  [8, 'Cut'],
  [10, 0],
  [20, 0],
  [40, 1],
];

function outcome(type: string, said: Pairs) {
  const layer: Pairs = said.some(([code]) => code === 8) ? [] : [[8, 'Cut']];
  // What is said comes first, as the first group of a code is the one that is read.
  const entity: Pairs = [[0, type], ...layer, ...said, ...entities[type]];
  const header: Pairs = [
    [9, '$INSUNITS'],
    [70, 4],
  ];
  const { drawing, notes } = readDxf(
    dxf({ HEADER: header, TABLES: layers, BLOCKS: blocks, ENTITIES: [...ring, ...entity] }),
    idFor,
    testFonts,
  );
  return { drawing, notes: notes.map(({ code, count }) => `${code} ${count}`) };
}

describe('every code that bears on what is drawn has an effect, or a note', () => {
  test.each(
    samples.map(([type, said]) => [`${type} ${said.map((group) => group.join('=')).join(' ')}`, type, said] as const),
  )('%s', (_, type, said) => {
    expect(outcome(type, said)).not.toEqual(outcome(type, []));
  });
  test('each code that is only noted is met by a sample', () => {
    const noted = new Set(
      samples.flatMap(([type, said]) => outcome(type, said).notes.map((note) => note.split(' ')[0])),
    );
    expect(unreadCodes.map(({ note }) => note).filter((note) => !noted.has(note))).toEqual([]);
  });
});
