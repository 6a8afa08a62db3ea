/**
 * Gives a file that ships with a package that readers use: `standard_fonts/…` and `cmaps/…` of the PDF
 * package, `webp/webp_dec.wasm` of the WebP one, `png/squoosh_png_bg.wasm` of the PNG one. Rejects for any
 * other.
 */
export type Assets = (name: string) => Promise<Uint8Array>;
