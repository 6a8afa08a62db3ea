import { expect, test } from '@jest/globals';
import { machineDoubts } from './doubts.ts';
import { ownLineFault } from './own-lines.ts';
import { usualMachine } from './usual-machine.ts';

test('a line that switches something may stand in every program', () => {
  for (const line of ['M7', 'M106 P2', 'M42 P4 S0', 'G4 P1.5', '(exhaust on) M8', 'G21', 'S0', 'M9 ; M3 S100']) {
    expect([line, ownLineFault(line)]).toEqual([line, null]);
  }
});

test.each([
  ['M3', 'light the beam'],
  ['m04', 'light the beam'],
  ['M7 S255', 'light the beam'],
  ['G0 X10', 'move the head'],
  ['G1Y-3', 'move the head'],
  ['Z 5', 'move the head'],
  ['G91', 'what the places of a program mean'],
  ['G20', 'what the places of a program mean'],
  ['G92', 'what the places of a program mean'],
  ['G28', 'what the places of a program mean'],
  ['M30', 'end or halt'],
  ['M0', 'end or halt'],
  ['$H', 'orders that act at once'],
  ['M7 !', 'orders that act at once'],
  ['M7 é', 'plain letters'],
  [`M7 ${'('.repeat(90)}`, '80 characters'],
])('%s may not: it %s', (line, why) => {
  expect(ownLineFault(line)).toContain(why);
});

test('a machine with such a line, or a focus that rests out of reach, is doubted and blocked', () => {
  const machine = { ...usualMachine('co2'), focus: { lowest: -5, highest: 20, speed: 5 } };
  const blocked = (more: object) =>
    machineDoubts({ ...machine, ...more }).flatMap(({ about, blocks, message }) => (blocks ? [[about, message]] : []));
  expect(blocked({ startLines: ['M7'], endLines: ['M9'], restFocus: 20 })).toEqual([]);
  expect(blocked({ endLines: ['M9', 'M30'] })).toEqual([
    ['endLines', '“M30” cannot be sent: it would end or halt the program.'],
  ]);
  expect(blocked({ startLines: ['M3 S5'] })).toEqual([
    ['startLines', '“M3 S5” cannot be sent: it would light the beam.'],
  ]);
  expect(blocked({ restFocus: 21 })).toEqual([
    ['restFocus', 'Its focus goes from -5 to 20 mm: it cannot rest at 21 mm.'],
  ]);
  expect(blocked({ restFocus: 21, focus: undefined })).toEqual([]);
  const offset = { axis: 'x', speed: 300, mm: 0.1 };
  expect(blocked({ scanOffsets: [offset, { ...offset, axis: 'y' }] })).toEqual([]);
  expect(blocked({ scanOffsets: [offset, { ...offset, mm: 0.2 }] })).toEqual([
    ['scanOffsets', 'X at 300 mm/s stands there twice. Keep the one that was measured last.'],
  ]);
});
