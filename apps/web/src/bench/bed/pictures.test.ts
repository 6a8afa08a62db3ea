import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { fetchPicture, keepPictures, pictureOf, showPicture } from './pictures.ts';

class Bitmap {
  isOpen = true;
  close(): void {
    this.isOpen = false;
  }
}

const browser = globalThis as unknown as Record<string, unknown>;
const { fetch } = globalThis;
let made: Bitmap[] = [];
let asked: string[] = [];

beforeEach(() => {
  [made, asked] = [[], []];
  browser.ImageBitmap = Bitmap;
  browser.createImageBitmap = async () => {
    made.push(new Bitmap());
    return made.at(-1);
  };
  browser.fetch = async (path: string) => {
    asked.push(path);
    return new Response(new Uint8Array([1]));
  };
});
afterEach(() => {
  keepPictures(new Set());
  globalThis.fetch = fetch;
});

test('a picture is fetched once, and drawn when it is there', async () => {
  expect(pictureOf('a')).toBeNull();
  await Promise.all([fetchPicture('a'), fetchPicture('a')]);
  expect(pictureOf('a')).toBe(made[0]);
  expect(asked).toEqual(['/api/pictures/a']);
});

test('pictures that are kept stay; the others are let go of, and fetched again when they are wanted', async () => {
  await showPicture('kept', new Uint8Array([1]));
  await fetchPicture('gone');
  keepPictures(new Set(['kept']));
  expect(made.map(({ isOpen }) => isOpen)).toEqual([true, false]);
  expect(pictureOf('kept')).toBe(made[0]);
  await fetchPicture('gone');
  expect(pictureOf('gone')).toBe(made[2]);
  expect(asked).toEqual(['/api/pictures/gone', '/api/pictures/gone']);
});

test('a picture that the server does not have yet is asked for again, and does not hide one that came meanwhile', async () => {
  browser.fetch = async () => new Response(null, { status: 404 });
  await fetchPicture('late');
  expect(pictureOf('late')).toBeNull();
  browser.fetch = async () => new Response(new Uint8Array([1]));
  await fetchPicture('late');
  await fetchPicture('late');
  expect(pictureOf('late')).toBe(made[0]);

  let answer: (response: Response) => void = () => undefined;
  browser.fetch = () => new Promise<Response>((resolve) => (answer = resolve));
  const waiting = fetchPicture('shown');
  await showPicture('shown', new Uint8Array([1]));
  answer(new Response(null, { status: 404 }));
  await waiting;
  expect(pictureOf('shown')).toBe(made[1]);
});
