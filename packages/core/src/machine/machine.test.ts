import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { machine } from '../fixtures/shop.ts';
import { machineDoubts } from './doubts.ts';
import { type MachineFigureName, machineFigures } from './figures.ts';
import { restingPlace } from './frame.ts';
import { atWork, beamOf, bedBox, type Machine, machineKinds, origins } from './machine.ts';
import { machineFromJson, NotAMachine } from './machine-json.ts';
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
    [{ connection: { kind: 'pigeon' } }, 'kind must be stand-in or network'],
    [{ connection: { kind: 'network', host: '', port: 80 } }, 'host must have 1 to 255 characters'],
    [{ connection: { kind: 'network', host: 'h', port: 65_536 } }, 'port must be a whole number from 1 to 65535'],
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
  });

  test('what is hardly meant is said, and stops nothing', () => {
    const about = (change: Partial<Machine>) => said(change).map((doubt) => [doubt.about, doubt.blocks]);
    expect(about({ travelSpeed: 499 })).toEqual([['travelSpeed', false]]);
    expect(about({ topSpeeds: { cut: 501 } })).toEqual([['topSpeeds', false]]);
    expect(about({ topSpeeds: { cut: 500 } })).toEqual([]);
    expect(about({ cornerDeviation: 0.11 })).toEqual([['cornerDeviation', false]]);
    expect(about({ measuredW: 76 })).toEqual([['measuredW', false]]);
    expect(about({ measuredW: 75 })).toEqual([]);
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
