import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine } from '../fixtures/shop.ts';
import { machineDoubts } from './doubts.ts';
import { type MachineFigureName, machineFigures } from './figures.ts';
import { restingPlace } from './frame.ts';
import {
  accelerationAlong,
  atWork,
  beamOf,
  bedBox,
  languageOf,
  type Machine,
  machineKinds,
  origins,
} from './machine.ts';
import { machineFromJson, NotAMachine } from './machine-json.ts';
import { toldDifferences } from './told-figures.ts';
import { usualMachine } from './usual-machine.ts';

const said = (change: Partial<Machine>) => machineDoubts({ ...machine, ...change });
const refusal = (change: object) => {
  try {
    machineFromJson({ ...machine, ...change });
  } catch (error) {
    if (error instanceof NotAMachine) return error.message;
    throw error;
  }
  return null;
};

describe('a machine from JSON', () => {
  test('is taken as it is, its name without blanks around it', () => {
    expect(machineFromJson({ ...machine, name: '  Wren ' })).toEqual({ ...machine, name: 'Wren' });
  });

  test('on a line whose language and buffer are not said has those that are usual', () => {
    const lineOf = (connection: object) => machineFromJson({ ...machine, connection });
    const network = lineOf({ kind: 'network', host: 'h', port: 1 });
    expect(network.connection).toEqual({ kind: 'network', host: 'h', port: 1, language: 'lambent', buffer: 127 });
    const serial = lineOf({ kind: 'serial', path: '/dev/ttyS0', baud: 115_200, buffer: 64 });
    expect(serial.connection).toMatchObject({ baud: 115_200, buffer: 64 });
    const plain = lineOf({ kind: 'network', host: 'h', port: 1, language: 'plain' });
    const languages = [network, plain, serial, { connection: null }, lineOf({ kind: 'stand-in', factor: 1 })];
    expect(languages.map(languageOf)).toEqual(['lambent', 'plain', 'plain', 'lambent', 'lambent']);
  });

  test.each(Object.entries(machineFigures))('%s has a least and a most, and is told by its name', (figure, limits) => {
    const { name, least, most } = limits;
    const alone = { mostPower: undefined, leastPower: undefined, margin: 0, measuredW: null };
    for (const wrong of [least - 1e-6, most + 1, Number.NaN, '5', Number.POSITIVE_INFINITY]) {
      const sentence = refusal({ ...alone, [figure]: wrong });
      expect(sentence).toContain(`“${name}” must`);
    }
    // The least power is below the most, and the margin leaves something of the bed.
    const widest = figure === 'margin' ? { bedWidth: 2000, bedHeight: 2000 } : {};
    const edges = figure === 'leastPower' ? [least] : figure === 'mostPower' ? [most] : [least, most];
    for (const right of edges) expect(refusal({ ...alone, ...widest, [figure]: right })).toBeNull();
  });

  test.each<[object, string]>([
    [{ name: '   ' }, 'name must have 1 to 60 characters'],
    [{ name: 'x'.repeat(61) }, 'name must have 1 to 60 characters'],
    [{ kind: 'plasma' }, 'kind must be co2, diode, fibre'],
    [{ origin: 'top-right' }, 'origin must be top-left, bottom-left, centre'],
    [{ connection: { kind: 'pigeon' } }, 'kind must be stand-in, network, serial'],
    [{ connection: { kind: 'network', host: '', port: 80 } }, 'host must have 1 to 255 characters'],
    [{ connection: { kind: 'network', host: 'h', port: 65_536 } }, 'port must be a whole number from 1 to 65535'],
    [{ connection: { kind: 'network', host: 'h', port: 1, language: 'welsh' } }, 'language must be lambent or plain'],
    [{ connection: { kind: 'serial', path: ' ', baud: 9600 } }, 'path must have 1 to 255 characters'],
    [{ connection: { kind: 'serial', path: 'p', baud: 300 } }, 'baud must be a whole number from 1200 to 4000000'],
    [{ connection: { kind: 'serial', path: 'p', baud: 9600, buffer: 63 } }, 'buffer must be a whole number from 64'],
    [{ lookAhead: 1.5 }, '“Looks ahead” must be a whole number'],
    [
      { air: { levels: [], mostBar: 1 }, connection: { kind: 'serial', path: 'p', baud: 9600 } },
      'no word for a pressure',
    ],
    [{ connection: { kind: 'stand-in', factor: 0 } }, 'factor must lie between 1 and 100'],
    [{ topSpeeds: { cut: 0 } }, 'top speed of cut must lie between'],
    [{ rest: { x: 601, y: 0 } }, 'its X goes from 0 mm to 600 mm'],
    [{ focus: { lowest: 3, highest: 3, speed: 5 } }, 'they are 3 and 3 mm'],
    [{ focus: { lowest: 0, highest: 3, speed: 0 } }, 'speed must be more than 0'],
    [{ lenses: [{ id: 'a', name: ' ' }] }, 'Each lens needs a name'],
    [
      {
        lenses: [
          { id: 'a', name: 'Fine' },
          { id: 'b', name: 'fine ' },
        ],
      },
      'Two lenses have one name',
    ],
    [{ margin: 200 }, '200 mm on every side leave nothing'],
    [{ leastPower: 50, mostPower: 50 }, 'light from 50 % on'],
  ])('%j is refused', (change, sentence) => {
    expect(refusal(change)).toContain(sentence);
  });
});

describe('doubts', () => {
  test('the usual machines of every kind have none', () => {
    for (const kind of machineKinds) {
      const usual = { ...usualMachine(kind), name: 'New' };
      expect(machineDoubts(usual)).toEqual([]);
      expect(machineFromJson(usual)).toEqual(usual);
    }
  });

  test('a top speed that the bed is too short for is said with the speed that is reached', () => {
    // v² = a·s: 1000 mm/s² over 400 mm give 632.4 mm/s.
    const short = { bedWidth: 400, bedHeight: 300, acceleration: 1000, travelSpeed: 700 };
    expect(said({ ...short, topSpeed: 633 })).toEqual([
      { about: 'topSpeed', blocks: false, message: expect.stringContaining('reaches 632 mm/s') },
      { about: 'travelSpeed', blocks: false, message: expect.stringContaining('reaches 632 mm/s') },
    ]);
    expect(said({ ...short, topSpeed: 632, travelSpeed: 632 })).toEqual([]);
    // Y alone is quick enough for 700 over its 300 mm.
    expect(said({ ...short, topSpeed: 700, accelerationY: 1634 })).toEqual([]);
    expect(said({ ...short, topSpeed: 700, accelerationY: 1633 })).toHaveLength(2);
  });

  test('what is hardly meant is said, and stops nothing', () => {
    const about = (change: Partial<Machine>) => said(change).map((doubt) => [doubt.about, doubt.blocks]);
    expect(about({ travelSpeed: 499 })).toEqual([['travelSpeed', false]]);
    expect(about({ topSpeeds: { cut: 501 } })).toEqual([['topSpeeds', false]]);
    expect(about({ topSpeeds: { cut: 500 } })).toEqual([]);
    expect(about({ cornerDeviation: 0.11 })).toEqual([['cornerDeviation', false]]);
    expect(about({ measuredW: 76 })).toEqual([['measuredW', false]]);
    expect(about({ measuredW: 75 })).toEqual([]);
    // 0.2 mm in 0.4 ms are 500 mm/s; 157 moves of 0.2 mm are what 500 mm/s take to brake from at 4000 mm/s².
    expect([about({ moveMs: 0.4 }), about({ moveMs: 0.41 })]).toEqual([[], [['moveMs', false]]]);
    expect([about({ lookAhead: 157 }), about({ lookAhead: 156 })]).toEqual([[], [['lookAhead', false]]]);
  });

  test('whatever its figures are, doubts are sentences', () => {
    const figures = Object.fromEntries(
      (Object.keys(machineFigures) as MachineFigureName[]).map((name) => {
        const { least, most } = machineFigures[name];
        return [name, fc.double({ min: least, max: most, noNaN: true })];
      }),
    );
    fc.assert(
      fc.property(fc.record(figures), (change) => {
        for (const { message } of said(change)) expect(message).toMatch(/^[A-Z0-9].*[.?]$/);
      }),
    );
  });
});

test('a head gains speed as one, or each axis as it can', () => {
  const along = (x: number, y: number, accelerationY?: number) =>
    accelerationAlong({ acceleration: 1000, accelerationY }, x, y);
  expect([along(1, 0), along(0.6, -0.8), along(0, 1)]).toEqual([1000, 1000, 1000]);
  expect([along(-1, 0, 250), along(0.6, -0.8, 250), along(0, -1, 250)]).toEqual([1000, 312.5, 250]);
});

test('what a machine tells of itself is held against what stands here', () => {
  const differences = (told: object, change: Partial<Machine> = {}) => toldDifferences({ ...machine, ...change }, told);
  expect(differences({ powerScale: 1000, acceleration: 4000, accelerationY: 4000, bedWidth: 600.4 })).toEqual([]);
  expect(differences({ powerScale: 255, bedWidth: 601, lookAhead: 16 })).toEqual([
    { figure: 'powerScale', here: 1000, there: 255 },
    { figure: 'bedWidth', here: 600, there: 601 },
    { figure: 'lookAhead', here: undefined, there: 16 },
  ]);
  expect(differences({ acceleration: 4000, accelerationY: 900 })).toEqual([
    { figure: 'accelerationY', here: undefined, there: 900 },
  ]);
  expect(differences({ accelerationY: 900 }, { accelerationY: 900 })).toEqual([]);
});

test('the head rests at the zero, or where it is told, in the machine’s own frame', () => {
  const restOf = (origin: Machine['origin'], rest?: Machine['rest']) => restingPlace({ ...machine, origin, rest });
  expect(origins.map((origin) => restOf(origin))).toEqual([
    { x: 0, y: 0 },
    { x: 0, y: 400 },
    { x: 300, y: 200 },
  ]);
  expect(origins.map((origin) => restOf(origin, { x: 20, y: 30 }))).toEqual([
    { x: 20, y: 30 },
    { x: 20, y: 370 },
    { x: 320, y: 170 },
  ]);
  const { maxX, maxY } = bedBox(machine);
  expect(said({ rest: { x: maxX, y: maxY } })).toEqual([]);
  expect(said({ origin: 'centre', rest: { x: -300, y: 200 } })).toEqual([]);
  expect(said({ origin: 'centre', rest: { x: -300.1, y: 200 } })).toMatchObject([{ about: 'rest', blocks: true }]);
});

test('a beam is told in a few words, and what is put away is not at work', () => {
  expect([beamOf(machine), beamOf({ kind: 'diode', ratedW: 5.5 }), beamOf({ kind: 'fibre', ratedW: 30 })]).toEqual([
    'CO₂ 60 W',
    'diode 5.5 W',
    'fibre 30 W',
  ]);
  expect(atWork([machine, { ...machine, id: 'old', isPutAway: true }])).toEqual([machine]);
});
