/**
 * Gives a file that ships with a package that readers use: `standard_fonts/…` and `cmaps/…` of the PDF package, and
 * those of `codecFiles`. Rejects for any other.
 */
export type Assets = (name: string) => Promise<Uint8Array>;

/** The WebAssembly that unpacks and packs pictures: where each package has it, by the name it is asked for. */
export const codecFiles: Readonly<Record<string, string>> = {
  'jpeg/mozjpeg_dec.wasm': '@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm',
  'jpeg/mozjpeg_enc.wasm': '@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm',
  'png/squoosh_png_bg.wasm': '@jsquash/png/codec/pkg/squoosh_png_bg.wasm',
  'webp/webp_dec.wasm': '@jsquash/webp/codec/dec/webp_dec.wasm',
};
