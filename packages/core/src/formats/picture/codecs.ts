import type { Assets } from '../assets.ts';

/** Red, green, blue and opacity of each pixel, a byte each, row by row. */
interface Rgba {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

/** WebAssembly of a package: the package would fetch it itself, which works in a browser only. */
async function moduleFrom(name: string, assets: Assets): Promise<WebAssembly.Module> {
  const scope = globalThis as { ImageData?: unknown };
  // What the packages give is one; there is none outside a browser.
  scope.ImageData ??= class {
    constructor(
      readonly data: Uint8ClampedArray,
      readonly width: number,
      readonly height: number,
    ) {}
  };
  return WebAssembly.compile((await assets(name)).slice());
}

/** What a browser gives has its values on its prototype: it cannot be spread. */
const rgbaOf = ({ width, height, data }: ImageData): Rgba => ({ width, height, data: data as Rgba['data'] });

/** @throws Error when it is damaged */
export async function decodeWebp(bytes: Uint8Array, assets: Assets): Promise<Rgba> {
  const { default: decode, init } = await import('@jsquash/webp/decode.js');
  await (init as Init)(await moduleFrom('webp/webp_dec.wasm', assets));
  return rgbaOf(await decode(bytes.slice().buffer));
}

/** Any PNG. @throws Error when it is damaged */
export async function decodePng(bytes: Uint8Array, assets: Assets): Promise<Rgba> {
  const { default: decode, init } = await import('@jsquash/png/decode.js');
  await init(await moduleFrom('png/squoosh_png_bg.wasm', assets));
  return rgbaOf(await decode(bytes.slice().buffer));
}

/** The packages take a module first, and what they are made with second; their types tell of the second alone. */
type Init = (module: WebAssembly.Module, made?: { printErr?: (line: string) => void }) => Promise<unknown>;

/** Warnings of pixels that are not there; others tell of bytes that are not needed. */
const damages = /premature end|bad Huffman|instead of RST/i;

let lastJpeg: Promise<unknown> = Promise.resolve();

/** A JPEG of up to three colour channels, not turned. @throws Error when it is damaged */
export function decodeJpeg(bytes: Uint8Array, assets: Assets): Promise<Rgba> {
  // One after the other: the package has one decoder, and warnings of two could not be told apart.
  const next = lastJpeg.catch(() => null).then(() => decodeNextJpeg(bytes, assets));
  lastJpeg = next;
  return next;
}

async function decodeNextJpeg(bytes: Uint8Array, assets: Assets): Promise<Rgba> {
  const { default: decode, init } = await import('@jsquash/jpeg/decode.js');
  const warnings: string[] = [];
  await (init as Init)(await moduleFrom('jpeg/mozjpeg_dec.wasm', assets), { printErr: (line) => warnings.push(line) });
  const pixels = rgbaOf(await decode(bytes.slice().buffer));
  const damage = warnings.find((line) => damages.test(line));
  if (damage) throw new Error(damage);
  return pixels;
}

/** @param quality from 1 to 100 */
export async function encodeRgbaAsJpeg(pixels: Rgba, quality: number, assets: Assets): Promise<Uint8Array> {
  const { default: encode, init } = await import('@jsquash/jpeg/encode.js');
  await (init as Init)(await moduleFrom('jpeg/mozjpeg_enc.wasm', assets));
  // Not by passes of rising detail, which take several times as long to pack.
  return new Uint8Array(await encode(pixels as ImageData, { quality, progressive: false }));
}
