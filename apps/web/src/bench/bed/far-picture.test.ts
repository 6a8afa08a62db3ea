import { expect, test } from '@jest/globals';
import type { Matrix } from '@lambent/core/geometry';
import { FarPicture, type Wish } from './far-picture.ts';

interface TestWish extends Wish {
  readonly of: string;
}

const view = { scale: 2, x: 10, y: 20 };
const wish = (of: string, other: Partial<TestWish> = {}): TestWish => ({ view, width: 100, height: 50, of, ...other });

/** A bitmap that knows what it shows and whether it is still there. */
class Bitmap {
  isOpen = true;
  constructor(readonly of: string) {}
  close() {
    this.isOpen = false;
  }
}

/** A worker that paints when it is told to, and the picture that asks it. */
function stage() {
  const asked: { wish: TestWish; done: (lifted?: boolean) => Bitmap[]; fail: (why: string) => void }[] = [];
  let changes = 0;
  const picture = new FarPicture<TestWish, Bitmap>(
    (wanted) =>
      new Promise((resolve, reject) => {
        asked.push({
          wish: wanted,
          done: (lifted = false) => {
            const bitmaps = [new Bitmap(wanted.of), new Bitmap(`${wanted.of} lifted`)];
            resolve({ resting: bitmaps[0], lifted: lifted ? bitmaps[1] : null });
            return bitmaps;
          },
          fail: (why) => reject(new Error(why)),
        });
      }),
    () => changes++,
  );
  const drawn = (at = view, live: Matrix | null = null) => {
    const calls: unknown[][] = [];
    const note =
      (name: string) =>
      (...args: unknown[]) => {
        calls.push([name, ...args.map((arg) => (arg instanceof Bitmap ? arg.of : arg))]);
      };
    picture.draw(
      { drawImage: note('image'), transform: note('map'), save: () => {}, restore: () => {} } as never,
      at,
      live,
    );
    return calls;
  };
  return { asked, picture, drawn, changes: () => changes };
}

const settled = () => new Promise((resolve) => setImmediate(resolve));

test('what is wanted is painted once; of what is wanted meanwhile, the last alone', async () => {
  const { asked, picture, drawn, changes } = stage();
  picture.want(wish('a'));
  picture.want(wish('a'));
  expect(asked).toHaveLength(1);
  expect(drawn()).toEqual([]);
  picture.want(wish('b'));
  picture.want(wish('c'));
  expect(asked).toHaveLength(1);
  const [a] = asked[0].done();
  await settled();
  expect(changes()).toBe(1);
  expect(drawn()).toEqual([['image', 'a', 0, 0, 100, 50]]);
  expect(asked.map(({ wish }) => wish.of)).toEqual(['a', 'c']);
  asked[1].done();
  await settled();
  expect(a.isOpen).toBe(false);
  expect(drawn()).toEqual([['image', 'c', 0, 0, 100, 50]]);
  picture.want(wish('c'));
  expect(asked).toHaveLength(2);
});

test('until the next picture comes, the last is moved and grown with the view', async () => {
  const { asked, picture, drawn } = stage();
  picture.want(wish('a'));
  asked[0].done();
  await settled();
  // A point of the bed lies where both views say: bed (0, 0) at 10, 20 before, and at 5, 6 now, twice as large.
  expect(drawn({ scale: 4, x: 5, y: 6 })).toEqual([['image', 'a', 5 - 20, 6 - 40, 200, 100]]);
});

test('what is dragged goes along, and stays where it was put until a picture shows it there', async () => {
  const { asked, picture, drawn } = stage();
  picture.want(wish('a'));
  asked[0].done(true);
  await settled();
  const moved: Matrix = [1, 0, 0, 1, 7, 8];
  const lifted = [
    ['map', 2, 0, 0, 2, 10, 20],
    ['map', ...moved],
    ['map', 0.5, 0, 0, 0.5, -5, -10],
    ['image', 'a lifted', 0, 0, 100, 50],
  ];
  expect(drawn(view, moved).slice(1)).toEqual(lifted);
  expect(drawn(view, null).slice(1)).toEqual(lifted);
  picture.want(wish('b'));
  asked[1].done(true);
  await settled();
  expect(drawn(view, null).slice(1)).toEqual([['image', 'b lifted', 0, 0, 100, 50]]);
});

test('a picture that cannot be painted is said, not asked for again and again, and the last one stays', async () => {
  const { asked, picture, drawn, changes } = stage();
  picture.want(wish('a'));
  asked[0].done();
  await settled();
  picture.want(wish('b'));
  asked[1].fail('There is no room.');
  await settled();
  expect(picture.trouble).toBe('There is no room.');
  expect(changes()).toBe(2);
  expect(drawn()).toEqual([['image', 'a', 0, 0, 100, 50]]);
  picture.want(wish('b'));
  expect(asked).toHaveLength(2);
  picture.want(wish('a'));
  asked[2].done();
  await settled();
  expect(picture.trouble).toBeNull();
});

test('closed, it lets go of its pictures, of one that comes late too; wanted again, it paints anew', async () => {
  const { asked, picture, drawn, changes } = stage();
  picture.want(wish('a'));
  const [a] = asked[0].done();
  await settled();
  picture.want(wish('b'));
  picture.close();
  expect(a.isOpen).toBe(false);
  const [b] = asked[1].done();
  await settled();
  expect([b.isOpen, changes(), picture.hasPicture]).toEqual([false, 1, false]);
  expect(drawn()).toEqual([]);
  picture.want(wish('b'));
  asked[2].done();
  await settled();
  expect(drawn()).toHaveLength(1);
});
