import { describe, expect, test } from '@jest/globals';
import { encode as encodePng } from 'fast-png';
import jpeg from 'jpeg-js';
import type { ReadingChoices } from '../../document/arrival.ts';
import { boundsOf } from '../../document/item.ts';
import { codesOf, idFor, testTools } from '../../fixtures/files.ts';
import { FileRefused } from '../refusal.ts';
import { colourProfileOf } from './colour-profile.ts';
import { decodePicture, plainPicture } from './decode.ts';
import { describePicture } from './describe.ts';
import { encodeJpeg } from './encode.ts';
import { readPicture } from './read.ts';

const { assets } = testTools;

/** Two pixels side by side, red and blue. */
const rgba = new Uint8Array([255, 0, 0, 255, 0, 0, 255, 255]);

function bmp(): Uint8Array {
  const bytes = new Uint8Array(54 + 8);
  const view = new DataView(bytes.buffer);
  bytes.set([0x42, 0x4d]);
  view.setUint32(10, 54, true);
  view.setUint32(14, 40, true);
  view.setInt32(18, 2, true);
  view.setInt32(22, 1, true);
  view.setUint16(26, 1, true);
  view.setUint16(28, 24, true);
  view.setInt32(38, 3937, true);
  view.setInt32(42, 3937, true);
  bytes.set([0, 0, 255, 255, 0, 0], 54);
  return bytes;
}

/** A JPEG with EXIF that gives an orientation and 300 pixels to the inch. */
function turnedJpeg(orientation: number): Uint8Array {
  const wide = new Uint8Array(16 * 8 * 4).fill(255);
  for (let y = 0; y < 8; y++) for (let x = 8; x < 16; x++) wide.set([0, 0, 0, 255], 4 * (16 * y + x));
  const plain = jpeg.encode({ width: 16, height: 8, data: wide }, 100).data;
  const tiff = new DataView(new ArrayBuffer(8 + 2 + 4 * 12 + 4 + 8));
  tiff.setUint32(0, 0x4d4d002a);
  tiff.setUint32(4, 8);
  tiff.setUint16(8, 4);
  const entry = (i: number, tag: number, type: number, value: number) => {
    const at = 10 + 12 * i;
    tiff.setUint16(at, tag);
    tiff.setUint16(at + 2, type);
    tiff.setUint32(at + 4, 1);
    if (type === 3) tiff.setUint16(at + 8, value);
    else tiff.setUint32(at + 8, value);
  };
  entry(0, 0x112, 3, orientation);
  entry(1, 0x11a, 5, 62);
  entry(2, 0x11b, 5, 62);
  entry(3, 0x128, 3, 2);
  tiff.setUint32(62, 300);
  tiff.setUint32(66, 1);
  const exif = new Uint8Array([0x45, 0x78, 0x69, 0x66, 0, 0, ...new Uint8Array(tiff.buffer)]);
  const segment = [0xff, 0xe1, (exif.length + 2) >> 8, (exif.length + 2) & 255, ...exif];
  return new Uint8Array([0xff, 0xd8, ...segment, ...plain.subarray(2)]);
}

const gif = Uint8Array.from(atob('R0lGODlhAgABAIAAAP8AAAAA/ywAAAAAAgABAAACAkQKADs='), (letter) => letter.charCodeAt(0));

/** Two pixels without loss, written by a browser. */
const webp = Uint8Array.from(atob('UklGRh4AAABXRUJQVlA4TBEAAAAvAQAAAA8Q87//8x8OMqL/AQA='), (letter) =>
  letter.charCodeAt(0),
);

/**
 * A JPEG of 8 × 8 pixels of one colour, given as cyan, magenta, yellow and black, 0 to 255, and kept turned
 * round as printers' programs keep it: each channel is one block that holds nothing but its mean.
 */
function cmykJpeg(inks: readonly number[]): Uint8Array {
  const segment = (mark: number, ...body: number[]) => [
    0xff,
    mark,
    (body.length + 2) >> 8,
    (body.length + 2) & 255,
    ...body,
  ];
  let bits = '';
  for (const ink of inks) {
    const level = (255 - ink - 128) * 8;
    const size = level === 0 ? 0 : Math.floor(Math.log2(Math.abs(level))) + 1;
    const value = level < 0 ? level + 2 ** size - 1 : level;
    // The size's code is the size itself in four bits; a single 0 ends the block.
    const digits = size === 0 ? '' : value.toString(2).padStart(size, '0');
    bits += `${size.toString(2).padStart(4, '0')}${digits}0`;
  }
  bits = bits.padEnd(Math.ceil(bits.length / 8) * 8, '1');
  const data = (bits.match(/.{8}/g) ?? []).flatMap((byte) => {
    const value = Number.parseInt(byte, 2);
    return value === 255 ? [255, 0] : [value];
  });
  const adobe = [...'Adobe'].map((letter) => letter.charCodeAt(0));
  const components = [1, 2, 3, 4];
  return Uint8Array.from([
    ...[0xff, 0xd8],
    ...segment(0xee, ...adobe, 0, 100, 0, 0, 0, 0, 0),
    ...segment(0xdb, 0, ...new Array<number>(64).fill(1)),
    ...segment(0xc0, 8, 0, 8, 0, 8, 4, ...components.flatMap((id) => [id, 0x11, 0])),
    ...segment(0xc4, 0x00, 0, 0, 0, 12, ...new Array<number>(12).fill(0), ...Array.from({ length: 12 }, (_, i) => i)),
    ...segment(0xc4, 0x10, 1, ...new Array<number>(15).fill(0), 0),
    ...segment(0xda, 4, ...components.flatMap((id) => [id, 0]), 0, 63, 0),
    ...data,
    ...[0xff, 0xd9],
  ]);
}

test.each<[string, readonly number[], readonly number[]]>([
  ['white paper', [0, 0, 0, 0], [255, 255, 255]],
  ['magenta and yellow', [0, 255, 255, 0], [255, 0, 0]],
  ['cyan', [255, 0, 0, 0], [0, 255, 255]],
  ['black ink alone', [0, 0, 0, 255], [0, 0, 0]],
  ['half of black', [0, 0, 0, 128], [127, 127, 127]],
])('a JPEG in CMYK: %s', async (_, inks, expected) => {
  const { width, height, rgb } = await decodePicture(cmykJpeg(inks), assets);
  expect([width, height]).toEqual([8, 8]);
  for (let i = 0; i < 3; i++) expect(Math.abs(rgb[i] - expected[i])).toBeLessThanOrEqual(2);
});

describe('pixels', () => {
  test.each<[string, Uint8Array]>([
    ['PNG', encodePng({ width: 2, height: 1, data: rgba, channels: 4 })],
    [
      'PNG of 16 bits',
      encodePng({ width: 2, height: 1, data: new Uint16Array([65535, 0, 0, 0, 0, 65535]), channels: 3, depth: 16 }),
    ],
    ['GIF', gif],
    ['BMP', bmp()],
    ['WebP', webp],
  ])('%s', async (_, bytes) => {
    expect(await decodePicture(bytes, assets)).toEqual({
      width: 2,
      height: 1,
      rgb: new Uint8Array([255, 0, 0, 0, 0, 255]),
    });
  });

  test('what is see-through lies over white', async () => {
    const { rgb, alpha } = await decodePicture(
      encodePng({ width: 2, height: 1, data: new Uint8Array([0, 0, 0, 128, 9, 9, 9, 0]), channels: 4 }),
      assets,
    );
    expect([...rgb]).toEqual([127, 127, 127, 255, 255, 255]);
    expect([...(alpha ?? [])]).toEqual([128, 0]);
    const solid = encodePng({ width: 1, height: 1, data: new Uint8Array([7, 8, 9, 255]), channels: 4 });
    expect(await decodePicture(solid, assets)).toEqual({ width: 1, height: 1, rgb: new Uint8Array([7, 8, 9]) });
  });

  test.each([
    [1, 16, 8, 255, 0],
    [3, 16, 8, 0, 255],
    [6, 8, 16, 255, 255],
    [8, 8, 16, 0, 0],
  ])(
    'a JPEG turned by %i is %i × %i pixels, its top corners %i and %i',
    async (orientation, width, height, topLeft, topRight) => {
      const bytes = turnedJpeg(orientation);
      expect(describePicture(bytes)).toMatchObject({ width, height });
      const { rgb, ...size } = await decodePicture(bytes, assets);
      expect(size).toEqual({ width, height });
      expect(Math.abs(rgb[0] - topLeft)).toBeLessThan(12);
      expect(Math.abs(rgb[3 * (width - 1)] - topRight)).toBeLessThan(12);
      // Once plain, it needs no turning.
      expect(describePicture(await plainPicture(bytes, assets))).toMatchObject({ width, height });
    },
  );
});

test('of JPEGs unpacked at the same time, one that is damaged is told from those that are not', async () => {
  const pixels = { width: 40, height: 40, rgb: Uint8Array.from({ length: 4800 }, (_, i) => (i * 37) % 251) };
  const whole = await encodeJpeg(pixels, 90, assets);
  const half = whole.slice(0, whole.length * 0.7);
  // Bytes that are not needed, ahead of the mark at the end.
  const padded = Uint8Array.from([...whole.subarray(0, -2), 0, 0, 0, ...whole.subarray(-2)]);
  const said = await Promise.allSettled([half, whole, half, padded].map((bytes) => decodePicture(bytes, assets)));
  expect(said.map(({ status }) => status)).toEqual(['rejected', 'fulfilled', 'rejected', 'fulfilled']);
});

describe('several pictures in one file', () => {
  const letters = (text: string) => [...text].map((letter) => letter.charCodeAt(0));
  const four = (value: number) => [value & 255, (value >> 8) & 255, value >> 16, 0];
  const chunk = (name: string, body: readonly number[]) => [...letters(name), ...four(body.length), ...body];
  /** On a canvas of 3 × 2: a frame of 2 × 1 in its top left, twice. */
  const animation = (() => {
    const picture = [...webp.subarray(12)];
    const frame = chunk('ANMF', [0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 40, 0, 0, 0, ...picture]);
    const head = chunk('VP8X', [2, 0, 0, 0, 2, 0, 0, 1, 0, 0]);
    const body = [...letters('WEBP'), ...head, ...chunk('ANIM', [0, 0, 0, 0, 0, 0]), ...frame, ...frame];
    return Uint8Array.from([...letters('RIFF'), ...four(body.length), ...body]);
  })();
  test('of a WebP animation the first is taken, on its canvas, and said', async () => {
    const { rgb, alpha, ...size } = await decodePicture(animation, assets);
    expect(size).toEqual({ width: 3, height: 2 });
    expect([...rgb.subarray(0, 12)]).toEqual([255, 0, 0, 0, 0, 255, 255, 255, 255, 255, 255, 255]);
    expect([...(alpha ?? [])]).toEqual([255, 255, 0, 0, 0, 0]);
    expect(codesOf(await readPicture(animation, idFor, {}, assets))).toContain('first-of-animation');
  });
  test('of a GIF too; one alone is not spoken of', async () => {
    const frame = gif.subarray(gif.indexOf(0x2c), gif.length - 1);
    const two = Uint8Array.from([...gif.subarray(0, -1), ...frame, 0x3b]);
    expect(codesOf(await readPicture(two, idFor, {}, assets))).toContain('first-of-animation');
    expect(codesOf(await readPicture(gif, idFor, {}, assets))).not.toContain('first-of-animation');
    expect(codesOf(await readPicture(webp, idFor, {}, assets))).not.toContain('first-of-animation');
  });
});

describe('BMP of other kinds', () => {
  const withBits = (bits: number, compression: number, masks: readonly number[], pixel: readonly number[]) => {
    const start = 54 + 4 * masks.length;
    const bytes = new Uint8Array(start + 8);
    const view = new DataView(bytes.buffer);
    bytes.set(bmp().subarray(0, 54));
    view.setUint32(10, start, true);
    view.setInt32(18, 1, true);
    view.setUint16(28, bits, true);
    view.setUint32(30, compression, true);
    masks.forEach((mask, i) => {
      view.setUint32(54 + 4 * i, mask, true);
    });
    bytes.set(pixel, start);
    return bytes;
  };
  test.each([
    ['16 bits', withBits(16, 0, [], [0x1f, 0x7c]), [255, 0, 255]],
    ['32 bits', withBits(32, 0, [], [10, 20, 30, 0]), [30, 20, 10]],
    ['32 bits with masks', withBits(32, 3, [0xff, 0xff00, 0xff000000], [10, 20, 30, 40]), [10, 20, 40]],
  ])('%s', async (_, bytes, rgb) => {
    expect([...(await decodePicture(bytes, assets)).rgb]).toEqual(rgb);
  });
  test('one that is compressed is refused with what to do', async () => {
    await expect(decodePicture(withBits(32, 1, [], []), assets)).rejects.toThrow('Save it as PNG');
  });
});

describe('size', () => {
  test('by the resolution in the file, else supposed and said', async () => {
    const sized = await readPicture(turnedJpeg(6), idFor, {}, assets);
    expect(boundsOf(sized.drawing.items[0]).maxX).toBeCloseTo((8 * 25.4) / 300, 6);
    expect(sized.size.sure).toBe(true);
    expect(boundsOf((await readPicture(bmp(), idFor, {}, assets)).drawing.items[0]).maxX).toBeCloseTo(2 / 3.937, 4);
    const bare = await readPicture(gif, idFor, {}, assets);
    expect(bare.size.sure).toBe(false);
    expect(codesOf(bare)).toContain('no-physical-size');
    const finer = bare.size.others.find(({ label }) => label.startsWith('300'));
    expect(boundsOf(bare.drawing.items[0]).maxX * (finer?.factor ?? 0)).toBeCloseTo((2 * 25.4) / 300, 9);
  });
});

describe('pictures that cannot be used', () => {
  test.each<[string, Uint8Array, string]>([
    ['a header alone', encodePng({ width: 2, height: 1, data: rgba, channels: 4 }).slice(0, 20), 'damaged'],
    [
      'more pixels than fit',
      (() => {
        const bytes = encodePng({ width: 2, height: 1, data: rgba, channels: 4 });
        new DataView(bytes.buffer, bytes.byteOffset).setUint32(16, 100_000);
        new DataView(bytes.buffer, bytes.byteOffset).setUint32(20, 100_000);
        return bytes;
      })(),
      'up to 120 million',
    ],
    ['something else', new Uint8Array(40), 'not a picture'],
  ])('%s', async (_, bytes, words) => {
    await expect(readPicture(bytes, idFor, {}, assets)).rejects.toThrow(FileRefused);
    await expect(readPicture(bytes, idFor, {}, assets)).rejects.toThrow(words);
  });
});

describe('a colour profile', () => {
  const latin = (text: string) => [...text].map((letter) => letter.charCodeAt(0));
  const wide = (text: string) => [...text].flatMap((letter) => [0, letter.charCodeAt(0)]);
  const number = (value: number) => [value >>> 24, (value >> 16) & 255, (value >> 8) & 255, value & 255];

  /** A profile of a single tag, its description, as old and new versions write it. */
  function profile(name: string, version: 2 | 4): number[] {
    const old = [...latin('desc'), ...number(0), ...number(name.length + 1), ...latin(name), 0, ...Array(20).fill(0)];
    const since = [...latin('mluc'), ...number(0), ...number(1), ...number(12), ...latin('enUS')];
    const text = [...since, ...number(2 * name.length), ...number(28), ...wide(name)];
    const tag = version === 2 ? old : text;
    return [...Array(128).fill(0), ...number(1), ...latin('desc'), ...number(144), ...number(tag.length), ...tag];
  }

  function jpegWith(icc: number[]): Uint8Array {
    const plain = jpeg.encode({ width: 2, height: 1, data: rgba }, 100).data;
    const body = [...latin('ICC_PROFILE'), 0, 1, 1, ...icc];
    return new Uint8Array([
      0xff,
      0xd8,
      0xff,
      0xe2,
      (body.length + 2) >> 8,
      (body.length + 2) & 255,
      ...body,
      ...plain.subarray(2),
    ]);
  }

  function pngWith(chunk: string, data: number[]): Uint8Array {
    const plain = encodePng({ width: 2, height: 1, data: rgba, channels: 4 });
    // After the header's 8 + 25 bytes; its checksum is not looked at here.
    return new Uint8Array([
      ...plain.subarray(0, 33),
      ...number(data.length),
      ...latin(chunk),
      ...data,
      0,
      0,
      0,
      0,
      ...plain.subarray(33),
    ]);
  }

  function webpWith(icc: number[]): Uint8Array {
    const even = icc.length % 2 === 0 ? icc : [...icc, 0];
    const size = icc.length;
    const little = [size & 255, (size >> 8) & 255, 0, 0];
    return new Uint8Array([...latin('RIFF'), 0, 0, 0, 0, ...latin('WEBP'), ...latin('ICCP'), ...little, ...even]);
  }

  test.each([
    ['JPEG, version 2', jpegWith(profile('Wide Grey (1998)', 2)), 'Wide Grey (1998)'],
    ['JPEG, version 4', jpegWith(profile('Dot Gain 20%', 4)), 'Dot Gain 20%'],
    ['JPEG, damaged', jpegWith(profile('Cut', 4).slice(0, 140)), 'unnamed'],
    ['WebP', webpWith(profile('Display Wide', 4)), 'Display Wide'],
    ['PNG by name', pngWith('iCCP', [...latin('Wide Grey'), 0, 0, 1, 2, 3]), 'Wide Grey'],
    ['PNG by gamma', pngWith('gAMA', number(55_556)), 'gamma 1.8'],
  ])('other than usual is told: %s', (_, bytes, name) => {
    expect(colourProfileOf(bytes)).toBe(name);
  });

  test.each([
    ['JPEG, version 2', jpegWith(profile('sRGB IEC61966-2.1', 2))],
    ['JPEG, version 4', jpegWith(profile('sRGB built-in', 4))],
    ['JPEG without', new Uint8Array(jpeg.encode({ width: 2, height: 1, data: rgba }, 100).data)],
    ['PNG by name', pngWith('iCCP', [...latin('sRGB'), 0, 0])],
    ['PNG by gamma', pngWith('gAMA', number(45_455))],
    ['PNG that says so', pngWith('sRGB', [0])],
    ['PNG without', encodePng({ width: 2, height: 1, data: rgba, channels: 4 })],
    ['GIF', gif],
  ])('that is the usual one is not: %s', (_, bytes) => {
    expect(colourProfileOf(bytes)).toBeNull();
  });

  test('of an animated PNG the first is taken, and said', async () => {
    const moving = pngWith('acTL', [...number(2), ...number(0)]);
    expect(codesOf(await readPicture(moving, idFor, {}, assets))).toContain('first-of-animation');
    expect(codesOf(await readPicture(pngWith('sRGB', [0]), idFor, {}, assets))).not.toContain('first-of-animation');
  });

  test('is a note of the picture', async () => {
    const { notes } = await readPicture(jpegWith(profile('Wide Grey (1998)', 2)), idFor, {}, assets);
    expect(notes.find(({ code }) => code === 'colour-profile')?.message).toContain('(Wide Grey (1998))');
  });
});

describe('a picture of very many pixels', () => {
  const data = Uint8Array.from({ length: 7 * 4 }, (_, i) => 10 * (i % 7) + Math.floor(i / 7));
  const png = encodePng({ width: 7, height: 4, data, channels: 1 });
  const sizeOf = async (choices: ReadingChoices, most: number) => {
    const { drawing, pictures, notes } = await readPicture(png, idFor, choices, assets, most);
    const [{ shape }] = drawing.items;
    if (shape.kind !== 'picture') throw new Error('no picture');
    const { minX, minY, maxX, maxY } = boundsOf(drawing.items[0]);
    const mm = [maxX - minX, maxY - minY].map((side) => (side * 96) / 25.4);
    return { shape, mm, file: pictures[0], notes: notes.map(({ code, message }) => `${code}: ${message}`) };
  };

  test('is made smaller by means, of the same size, which is said', async () => {
    const { shape, mm, file, notes } = await sizeOf({}, 20);
    expect(shape).toMatchObject({ width: 3, height: 2, pictureId: file.id });
    // The column that is left over, of an odd number, is left out.
    expect(mm).toEqual([expect.closeTo(6), expect.closeTo(4)]);
    const { rgb } = await decodePicture(file.bytes, assets);
    expect([...rgb].filter((_, i) => i % 3 === 0)).toEqual([6, 26, 46, 8, 28, 48]);
    expect(notes[0]).toContain('very-many-pixels: The picture has 7 × 4 pixels; it is made smaller, to 3 × 2');
  });

  test('keeps them all where that is wanted; one of fewer is not spoken of', async () => {
    const all = await sizeOf({ pixels: 'all' }, 20);
    expect(all.shape).toMatchObject({ width: 7, height: 4 });
    expect(all.file.bytes).toEqual(png);
    expect(all.notes[0]).toContain('keeps them all');
    const small = await sizeOf({}, 28);
    expect(small.shape).toMatchObject({ width: 7, height: 4 });
    expect(small.notes.join()).not.toContain('very-many-pixels');
  });
});
