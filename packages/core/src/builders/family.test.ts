import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { familyFromJson, familyFromText, familyToJson, NotAFamily } from './family.ts';
import { type Field, usualNumbers } from './fields.ts';
import { builders } from './list.ts';

const small = {
  name: 'Seed drawer, small',
  builder: 'joined-box',
  numbers: { width: 120, lid: 'slides', letters: false },
};

test('a family comes back from its file as it was, under another id', () => {
  const family = familyFromJson({ ...small, numbers: { ...small.numbers } }, 'one');
  expect(family).toEqual({ ...small, id: 'one' });
  expect(familyFromText(familyToJson(family), 'other')).toEqual({ ...small, id: 'other' });
  const grid = { name: ' Cells ', builder: 'slotted-grid', numbers: { cells: 'sizes', cellWidths: [30, 40.5] } };
  expect(familyFromJson(grid, 'grid')).toEqual({ ...grid, name: 'Cells', id: 'grid' });
});

test('whatever a builder’s numbers are within their limits, they are kept', () => {
  const valueFor = (field: Field): fc.Arbitrary<unknown> => {
    switch (field.kind) {
      case 'yes':
        return fc.boolean();
      case 'choice':
        return fc.constantFrom(...Object.keys(field.options));
      case 'count':
        return fc.integer({ min: field.least, max: field.most });
      case 'edge':
        return fc.integer({ min: 0, max: 40 });
      case 'lengths':
        return fc.array(fc.double({ min: field.least, max: field.most, noNaN: true }), { minLength: 1, maxLength: 4 });
      default:
        return fc.double({ min: field.least, max: field.most, noNaN: true });
    }
  };
  fc.assert(
    fc.property(
      fc.constantFrom(...builders).chain(({ id, fields }) =>
        fc.record({
          name: fc.constant('Kept'),
          builder: fc.constant(id),
          numbers: fc.record(
            Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, valueFor(field)])),
          ),
        }),
      ),
      (said) => {
        const kept = familyFromText(familyToJson(familyFromJson(said, 'a')), 'a');
        expect(kept.numbers).toEqual(JSON.parse(JSON.stringify(said.numbers)));
      },
    ),
  );
  for (const { id, fields } of builders) {
    expect(familyFromJson({ name: 'Usual', builder: id, numbers: usualNumbers(fields) }, 'u').builder).toBe(id);
  }
});

test.each<[string, unknown, string]>([
  ['nothing', null, 'no file of kept numbers'],
  ['no numbers', { name: 'A', builder: 'joined-box' }, 'no file of kept numbers'],
  ['no name', { ...small, name: '  ' }, 'A name has 1 to 80 characters.'],
  ['an unknown builder', { ...small, builder: 'teapot' }, 'for “teapot”, which this Lambent does not build'],
  ['an unknown number', { ...small, numbers: { wheels: 4 } }, 'Joined box has no number “wheels”.'],
  ['a number beyond its limits', { ...small, numbers: { width: -3 } }, 'Joined box: Width is -3 mm; it can be from 1'],
  ['a word that is none', { ...small, numbers: { lid: 'wide' } }, 'Lid is one of'],
])('%s is refused with what is wrong', (_, json, said) => {
  expect(() => familyFromJson(json, 'x')).toThrow(NotAFamily);
  expect(() => familyFromJson(json, 'x')).toThrow(said);
});

test('a file that holds no JSON is told as such', () => {
  expect(() => familyFromText('width: 3', 'x')).toThrow('it holds no JSON');
});
