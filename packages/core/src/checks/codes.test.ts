import { expect, test } from '@jest/globals';
import { makeCode } from '../codes/make-code.ts';
import type { Item } from '../document/item.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { translation } from '../geometry/paths/matrix.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

/** A QR code of 29 modules, its quiet zone included; as wide as is said, at (20, 20). */
const code = (width: number): Item =>
  item(box(0, 0, 1), 'engrave', {
    shape: makeCode({ symbology: 'qr', words: 'Ines', width, height: width }),
    matrix: translation(20, 20),
  });
const found = (...items: Item[]) => {
  const prepared = prepareJob(jobWith(items), shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code: about }) => about.startsWith('code-'));
};

test('a code is too fine from where its modules are narrower than the lines that burn it are apart', () => {
  const [small, large] = [code(2.89), code(2.91)];
  expect(found(large)).toEqual([]);
  const other = { ...small, id: 'other', matrix: translation(60, 20) };
  expect(found(small, other)).toMatchObject([
    {
      code: 'code-too-fine',
      level: 'blocks',
      itemIds: [small.id, 'other'],
      message:
        '2 codes have parts finer than the beam is wide: 0.10 mm in a QR code, and the beam burns 0.10 mm. Make it larger, or let it say less.',
    },
  ]);
  // Made larger on the bed, it is not.
  expect(found({ ...small, matrix: [2, 0, 0, 2, 20, 20] })).toEqual([]);
});

test('what burns in the quiet zone is said, what only lies around the code is not', () => {
  const own = code(29);
  expect(found(own, item(box(19, 19, 31), 'cut'))).toEqual([]);
  expect(found(own, item(line(48, 10, 48, 60), 'note'))).toEqual([]);
  expect(found(own, item(line(48.5, 10, 48.5, 60), 'score'))).toMatchObject([
    {
      code: 'code-quiet-zone',
      itemIds: [own.id],
      message: 'Something else burns in the quiet zone of 1 code. Move it away, or make the code smaller.',
    },
  ]);
  expect(found({ ...own, matrix: [1, 0, 0, 1, 100, 20] }, item(line(49.5, 10, 49.5, 60), 'score'))).toEqual([]);
});
