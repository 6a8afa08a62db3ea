import { colours } from './pen.mjs';

const machine = (id, name, kind, bedWidth, bedHeight, origin, port, more) => ({
  id,
  name,
  kind,
  bedWidth,
  bedHeight,
  origin,
  margin: 5,
  cornerDeviation: 0.01,
  powerScale: 1000,
  minLineSpacing: 0.05,
  ...more,
  connection: { kind: 'network', host: '127.0.0.1', port },
});

const machines = [
  machine('wren', 'Wren', 'co2', 600, 400, 'top-left', 7451, {
    topSpeed: 500,
    travelSpeed: 600,
    acceleration: 4000,
    ratedW: 60,
    measuredW: 54,
    topSpeeds: { cut: 120 },
    leastPower: 4,
    bedGapMm: 6,
    pointer: { x: 14, y: -3 },
    focus: { lowest: -10, highest: 20, speed: 6 },
    air: { levels: ['low', 'high'], mostBar: null },
  }),
  machine('curlew', 'Curlew', 'co2', 1000, 700, 'bottom-left', 7452, {
    topSpeed: 800,
    travelSpeed: 900,
    acceleration: 6000,
    ratedW: 100,
    topSpeeds: { cut: 200 },
    leastPower: 3,
    bedGapMm: 12,
    focus: { lowest: -15, highest: 40, speed: 10 },
    air: { levels: ['low', 'high'], mostBar: 1.5 },
    lenses: [
      { id: 'short', name: '50 mm, fine' },
      { id: 'long', name: '100 mm, deep' },
    ],
  }),
  machine('dunlin', 'Dunlin', 'diode', 400, 400, 'bottom-left', 7453, {
    topSpeed: 120,
    travelSpeed: 150,
    acceleration: 1200,
    ratedW: 10,
  }),
];

/** Power % and speed mm/s (and passes) of cut, score, engrave and photo, by machine; null where it cannot be done. */
const table = {
  'birch-ply-3': {
    name: 'Birch plywood',
    thicknessMm: 3,
    tone: '#EAD9B4',
    size: [420, 360],
    wren: [
      [62, 14],
      [12, 90],
      [22, 400],
    ],
    curlew: [
      [55, 22],
      [9, 120],
      [16, 600],
    ],
    dunlin: [
      [100, 3, 3],
      [60, 30],
      [70, 80],
    ],
  },
  'birch-ply-4': {
    name: 'Birch plywood',
    thicknessMm: 4,
    tone: '#E7D3A8',
    size: [600, 400],
    wren: [
      [70, 10],
      [12, 90],
      [22, 400],
    ],
    curlew: [
      [62, 17],
      [9, 120],
      [16, 600],
    ],
    dunlin: [
      [100, 2.5, 5],
      [60, 30],
      [70, 80],
    ],
  },
  'poplar-ply-6': {
    name: 'Poplar plywood',
    thicknessMm: 6,
    tone: '#F0E3C3',
    size: [600, 400],
    wren: [
      [75, 8],
      [11, 90],
      [20, 400],
    ],
    curlew: [
      [68, 13],
      [8, 120],
      [15, 600],
    ],
    dunlin: [null, [55, 30], [65, 80]],
  },
  'acrylic-clear-3': {
    name: 'Cast acrylic, clear',
    thicknessMm: 3,
    tone: '#E3EEF0',
    size: [500, 400],
    wren: [
      [60, 12],
      [8, 100],
      [18, 350],
    ],
    curlew: [
      [52, 19],
      [6, 140],
      [13, 500],
    ],
    dunlin: [null, null, null],
  },
  'acrylic-amber-5': {
    name: 'Cast acrylic, amber',
    thicknessMm: 5,
    tone: '#F3C583',
    size: [500, 400],
    wren: [
      [70, 7],
      [8, 100],
      [18, 350],
    ],
    curlew: [
      [62, 11],
      [6, 140],
      [13, 500],
    ],
    dunlin: [null, [70, 25], [75, 70]],
  },
  'grey-board-2': {
    name: 'Grey board',
    thicknessMm: 2,
    tone: '#D3D2CC',
    size: [1000, 700],
    wren: [
      [45, 24],
      [9, 120],
      [14, 400],
    ],
    curlew: [
      [38, 34],
      [7, 160],
      [10, 600],
    ],
    dunlin: [
      [100, 6, 2],
      [50, 40],
      [55, 90],
    ],
  },
  'cotton-card-05': {
    name: 'Cotton card',
    thicknessMm: 0.5,
    tone: '#F7F2E4',
    size: [400, 400],
    wren: [
      [18, 60],
      [5, 160],
      [8, 450],
    ],
    curlew: [
      [14, 80],
      [4, 200],
      [6, 700],
    ],
    dunlin: [
      [70, 14],
      [25, 60],
      [30, 110],
    ],
  },
  'veg-leather-2': {
    name: 'Vegetable-tanned leather',
    thicknessMm: 2,
    tone: '#DDB893',
    size: [400, 300],
    wren: [
      [40, 18],
      [9, 90],
      [14, 350],
    ],
    curlew: [
      [34, 27],
      [7, 120],
      [11, 500],
    ],
    dunlin: [
      [100, 4, 3],
      [45, 30],
      [50, 80],
    ],
  },
  'slate-6': {
    name: 'Slate tile',
    thicknessMm: 6,
    tone: '#8F979B',
    size: [300, 200],
    wren: [null, [30, 60], [35, 300], [34, 260]],
    curlew: [null, [24, 80], [26, 450], [25, 400]],
    dunlin: [null, [90, 20], [95, 60]],
  },
  'cork-3': {
    name: 'Cork',
    thicknessMm: 3,
    tone: '#CDA575',
    size: [600, 300],
    wren: [
      [42, 20],
      [9, 110],
      [15, 380],
    ],
    curlew: [
      [36, 30],
      [7, 140],
      [11, 560],
    ],
    dunlin: [
      [100, 4, 2],
      [50, 35],
      [55, 90],
    ],
  },
  'laminate-16': {
    name: 'Two-colour engraving laminate',
    thicknessMm: 1.6,
    tone: '#C9D5D2',
    size: [600, 300],
    wren: [
      [38, 20],
      [7, 120],
      [15, 400],
    ],
    curlew: [
      [32, 30],
      [6, 150],
      [11, 600],
    ],
    dunlin: [
      [100, 5, 3],
      [45, 40],
      [60, 90],
    ],
  },
};

const operations = ['cut', 'score', 'engrave', 'photo'];

/** What was read from test pieces: the kerf by machine, and how much wider than a thing its pocket is. */
const source = { from: 'measured', by: 'Ines Varga', on: '2026-10-14' };
const measured = {
  'birch-ply-4': { kerf: { wren: 0.16, curlew: 0.18 }, fits: { loose: 0.3, sliding: 0.15, snug: 0.05, press: -0.05 } },
  'acrylic-clear-3': { kerf: { wren: 0.2, curlew: 0.22 }, fits: { loose: 0.35, sliding: 0.2, snug: 0.1 } },
  'poplar-ply-6': { kerf: { curlew: 0.24 }, fits: {} },
};

const kerfOf = (id, machineId, operation) => {
  const kerfMm = operation === 'cut' ? measured[id]?.kerf[machineId] : undefined;
  return kerfMm === undefined ? {} : { kerfMm, kerfFrom: source };
};

const fitsOf = (id) => {
  const fits = Object.entries(measured[id]?.fits ?? {}).map(([fit, mm]) => [fit, { mm, source }]);
  return fits.length > 0 ? { fits: Object.fromEntries(fits) } : {};
};

/** What settings that nobody has burnt are worked out within. */
const families = {
  'birch-ply-3': 'Plywood',
  'birch-ply-4': 'Plywood',
  'poplar-ply-6': 'Plywood',
  'acrylic-clear-3': 'Cast acrylic',
  'acrylic-amber-5': 'Cast acrylic',
  'grey-board-2': 'Card and board',
  'cotton-card-05': 'Card and board',
  'veg-leather-2': 'Leather',
  'slate-6': 'Stone',
  'cork-3': 'Cork',
  'laminate-16': 'Engraving laminate',
};

/** The least that holds, in mm: as wide as a wall or a line, and as high as capitals. */
const leastSizes = {
  'birch-ply-3': {
    cut: { detailMm: 0.8, letterMm: 4 },
    score: { detailMm: 0, letterMm: 2 },
    engrave: { detailMm: 0.15, letterMm: 1.8 },
  },
  'acrylic-clear-3': { cut: { detailMm: 0.6, letterMm: 3 }, engrave: { detailMm: 0.1, letterMm: 1.2 } },
};

/** What a square metre of each material costs. */
const perSquareMetre = {
  'birch-ply-3': 14,
  'birch-ply-4': 18,
  'poplar-ply-6': 19,
  'acrylic-clear-3': 42,
  'acrylic-amber-5': 68,
  'grey-board-2': 6,
  'cotton-card-05': 5,
  'veg-leather-2': 95,
  'slate-6': 60,
  'cork-3': 16,
  'laminate-16': 74,
};

/** Whole sheets of a material on the rack, and what is left of one. */
function stockFor(id, [width, height]) {
  const price = Math.round(width * height * perSquareMetre[id] * 1e-5) / 10;
  const whole = { id: 'whole', width, height, count: id === 'slate-6' ? 24 : 8, price };
  const rest = { id: 'rest', width: 210, height: 148, count: 2, price: null, offcut: true };
  return id.startsWith('birch-ply') ? [whole, rest] : [whole];
}

/** How dark the greys of a card came out on slate on Wren: half of the dots burn far more than half as strong. */
const slateGreys = [0.18, 0.33, 0.47, 0.58, 0.68, 0.76, 0.84, 0.9, 0.95, 1];

function greysOf(id, machineId, operation) {
  if (id !== 'slate-6' || machineId !== 'wren' || operation !== 'photo') return {};
  return { burntGreys: slateGreys.map((burnt, i) => ({ asked: (i + 1) / 10, burnt })) };
}

const materials = Object.entries(table).map(([id, { name, thicknessMm, tone, size, ...byMachine }]) => ({
  id,
  family: families[id],
  name,
  thicknessMm,
  tone,
  ...(id === 'acrylic-clear-3' ? { isClear: true } : {}),
  ...(id === 'slate-6' ? { turnsLighter: true } : {}),
  ...(leastSizes[id] ? { leastSizes: leastSizes[id] } : {}),
  sheetWidth: size[0],
  sheetHeight: size[1],
  forbidden: null,
  stock: stockFor(id, size),
  ...fitsOf(id),
  recipes: Object.entries(byMachine).flatMap(([machineId, settings]) =>
    settings.flatMap((setting, i) =>
      setting === null
        ? []
        : [
            {
              machineId,
              operation: operations[i],
              powerPercent: setting[0],
              speedMmPerS: setting[1],
              passes: setting[2] ?? 1,
              lineSpacingMm: 0.1,
              ...kerfOf(id, machineId, operations[i]),
              ...greysOf(id, machineId, operations[i]),
              ...(machineId === 'dunlin'
                ? {
                    evidence: 'copied',
                    proof: { by: 'Tobiah Okonjo', on: '2026-08-03', what: 'the makers’ table' },
                    note: 'From the makers’ table; not yet burnt here.',
                  }
                : {
                    evidence: 'proven',
                    proof: { by: 'Ines Varga', on: '2026-09-12', what: 'test cards of September' },
                    note: 'Burnt and judged by Ines Varga.',
                  }),
            },
          ],
    ),
  ),
}));

materials.push({
  id: 'pvc-sheet',
  family: 'Vinyl',
  name: 'PVC sheet, any',
  thicknessMm: 1,
  tone: '#C9C9D6',
  sheetWidth: 300,
  sheetHeight: 200,
  forbidden: 'it gives off hydrogen chloride, which harms lungs and eats the machine. Use acrylic or card.',
  recipes: [],
});

const layers = [
  ['cut', 'Cut'],
  ['score', 'Score'],
  ['engrave', 'Engrave'],
  ['photo', 'Photo'],
  ['guide', 'Guide'],
  ['note', 'Note'],
].map(([id, name]) => ({ id, name, operation: id }));

const rule = (part, colour, layerId, tolerance = 1) => ({
  part,
  colour,
  tolerance,
  minWidthMm: null,
  maxWidthMm: null,
  layerId,
});

const keys = [
  {
    id: 'house',
    name: 'Tern Lane house key',
    layers,
    rules: ['stroke', 'fill'].flatMap((part) => Object.entries(colours).map(([id, colour]) => rule(part, colour, id))),
  },
  {
    // The evening class draws with two pens: green cuts, vermilion creases; whatever is filled is engraved.
    id: 'evening-class',
    name: 'Evening class key',
    layers,
    rules: [
      rule('stroke', colours.score, 'cut', 6),
      rule('stroke', colours.cut, 'score', 6),
      rule('stroke', colours.guide, 'guide', 3),
      rule('fill', null, 'engrave', 0),
    ],
  },
  {
    // The print shop across the estuary sends what its presses call magenta, cyan and black.
    id: 'print-colours',
    name: 'Ferry Steps print colours',
    layers,
    rules: [
      rule('stroke', '#EC008C', 'cut', 5),
      rule('stroke', '#00AEEF', 'score', 5),
      rule('stroke', '#231F20', 'engrave', 6),
      rule('fill', '#231F20', 'engrave', 6),
      rule('stroke', '#FFF200', 'note', 5),
    ],
  },
  {
    // The boat builders draw in one pen: a hairline is cut, a fine line scored, anything thicker is an area.
    id: 'line-width',
    name: 'Slipway, by line width',
    hairlineMm: 0.5,
    layers,
    rules: [
      { ...rule('stroke', null, 'cut', 0), maxWidthMm: 0.1 },
      { ...rule('stroke', null, 'score', 0), minWidthMm: 0.1, maxWidthMm: 0.5 },
      { ...rule('stroke', null, 'engrave', 0), minWidthMm: 0.5 },
      rule('fill', null, 'engrave', 0),
    ],
  },
  {
    // Relief and lettering in three depths: the darker the fill, the deeper it goes.
    id: 'grey-depth',
    name: 'Three depths of grey',
    layers: [
      ...layers.filter(({ id }) => id !== 'engrave'),
      { id: 'deep', name: 'Deep', operation: 'engrave', rank: 1 },
      { id: 'medium', name: 'Medium', operation: 'engrave', rank: 2, powerShare: 0.65 },
      { id: 'shallow', name: 'Shallow', operation: 'engrave', rank: 3, powerShare: 0.35 },
    ],
    rules: [
      { ...rule('fill', null, 'deep', 0), grey: { from: 0, to: 33 } },
      { ...rule('fill', null, 'medium', 0), grey: { from: 33, to: 66 } },
      { ...rule('fill', null, 'shallow', 0), grey: { from: 66, to: 92 } },
      rule('stroke', colours.cut, 'cut', 3),
      rule('stroke', colours.score, 'score', 3),
    ],
  },
];

/** What the workshop charges: minutes of its machines, square metres of stock, and for setting a job up. */
const pricing = {
  currency: '€',
  setUp: 1.5,
  perRun: 0.5,
  minimum: 3,
  rounding: 0.1,
  machines: { wren: 0.35, curlew: 0.5, dunlin: 0.12 },
  materials: perSquareMetre,
};

export const shop = { name: 'Tern Lane Workshop', machines, keys, materials, pricing };
