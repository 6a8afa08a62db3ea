import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { FontBook, type FontFile, type ReadingTools } from '@lambent/core';

/** A font that ships with Lambent: where its files are, and what it is. All under the SIL Open Font License. */
interface Shipped {
  readonly family: string;
  readonly generic: FontFile['generic'];
  readonly name: string;
  readonly weights: readonly [normal: number, bold: number];
  readonly styles: readonly ('normal' | 'italic')[];
}

const shipped: readonly Shipped[] = [
  {
    family: 'Atkinson Hyperlegible Next',
    generic: 'sans-serif',
    name: 'atkinson-hyperlegible-next',
    weights: [400, 700],
    styles: ['normal', 'italic'],
  },
  { family: 'Bitter', generic: 'serif', name: 'bitter', weights: [400, 700], styles: ['normal', 'italic'] },
  {
    family: 'Atkinson Hyperlegible Mono',
    generic: 'monospace',
    name: 'atkinson-hyperlegible-mono',
    weights: [400, 700],
    styles: ['normal'],
  },
];

const require = createRequire(import.meta.url);
let read: FontFile[] | null = null;

/** Every font that ships with Lambent, read from disk once. */
export function shippedFonts(): readonly FontFile[] {
  read ??= shipped.flatMap(({ family, generic, name, weights, styles }) =>
    weights.flatMap((weight, i) =>
      styles.flatMap((style) =>
        ['latin', 'latin-ext'].map((subset) => ({
          family,
          generic,
          bold: i === 1,
          italic: style === 'italic',
          bytes: new Uint8Array(
            readFileSync(require.resolve(`@fontsource/${name}/files/${name}-${subset}-${weight}-${style}.woff`)),
          ),
        })),
      ),
    ),
  );
  return read;
}

const pdfPackage = dirname(require.resolve('pdfjs-dist/package.json'));

/** Where a file that ships with a package readers use is; null for any other name. */
export function shippedAsset(name: string): string | null {
  if (name === 'webp/webp_dec.wasm') return require.resolve('@jsquash/webp/codec/dec/webp_dec.wasm');
  return /^(?:standard_fonts|cmaps)\/[\w.-]+$/.test(name) ? join(pdfPackage, name) : null;
}

/** What readers need beside a file: fonts, and the files that stand in for those a PDF does not embed. */
export function shippedTools(more: readonly FontFile[] = []): ReadingTools {
  return {
    fonts: new FontBook([...more, ...shippedFonts()]),
    assets: async (name) => {
      const path = shippedAsset(name);
      if (!path) throw new RangeError(`${name} does not ship`);
      return new Uint8Array(await readFile(path));
    },
  };
}
