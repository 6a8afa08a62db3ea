import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { codecFiles, type ReadingTools } from '@lambent/core/formats';
import { FontBook, type FontFile, type StrokeFont, strokeFontBytes } from '@lambent/core/text';

/** A font that ships with Lambent: where its files are, and what it is. All under the SIL Open Font License. */
interface Shipped {
  readonly family: string;
  readonly generic: FontFile['generic'];
  readonly name: string;
  readonly bold: boolean;
  readonly styles: readonly ('normal' | 'italic')[];
  readonly subsets: readonly string[];
}

const western = ['latin', 'latin-ext'];

const shipped: readonly Shipped[] = [
  {
    family: 'Atkinson Hyperlegible Next',
    generic: 'sans-serif',
    name: 'atkinson-hyperlegible-next',
    bold: true,
    styles: ['normal', 'italic'],
    subsets: western,
  },
  { family: 'Bitter', generic: 'serif', name: 'bitter', bold: true, styles: ['normal', 'italic'], subsets: western },
  {
    family: 'Atkinson Hyperlegible Mono',
    generic: 'monospace',
    name: 'atkinson-hyperlegible-mono',
    bold: true,
    styles: ['normal'],
    subsets: western,
  },
  { family: 'Nunito', generic: null, name: 'nunito', bold: true, styles: ['normal', 'italic'], subsets: western },
  {
    family: 'Dancing Script',
    generic: null,
    name: 'dancing-script',
    bold: true,
    styles: ['normal'],
    subsets: western,
  },
  {
    family: 'Stardos Stencil',
    generic: null,
    name: 'stardos-stencil',
    bold: true,
    styles: ['normal'],
    subsets: ['latin'],
  },
  {
    family: 'Saira Stencil One',
    generic: null,
    name: 'saira-stencil-one',
    bold: false,
    styles: ['normal'],
    subsets: western,
  },
];

const require = createRequire(import.meta.url);
let read: FontFile[] | null = null;

/** Every font that ships with Lambent, read from disk once. */
export function shippedFonts(): readonly FontFile[] {
  read ??= [
    ...shipped.flatMap(({ family, generic, name, bold, styles, subsets }) =>
      (bold ? [400, 700] : [400]).flatMap((weight) =>
        styles.flatMap((style) =>
          subsets.map((subset) => ({
            family,
            generic,
            bold: weight === 700,
            italic: style === 'italic',
            bytes: new Uint8Array(
              readFileSync(require.resolve(`@fontsource/${name}/files/${name}-${subset}-${weight}-${style}.woff`)),
            ),
          })),
        ),
      ),
    ),
    ...singleLineFonts(),
  ];
  return read;
}

/** Faces of single lines, from Dr A. V. Hershey's fonts (US National Bureau of Standards), which may be used freely. */
function singleLineFonts(): FontFile[] {
  type Source = Record<string, { chars: { d: string; o: number }[] }>;
  const source = JSON.parse(readFileSync(require.resolve('hersheytext/hersheytext.json'), 'utf8')) as Source;
  const faces = [
    { family: 'Single line', from: 'futural' },
    { family: 'Single line script', from: 'scripts' },
  ];
  return faces.map(({ family, from }) => ({
    family,
    generic: null,
    bold: false,
    italic: false,
    bytes: strokeFontBytes(strokeFontOf(source[from].chars)),
  }));
}

/** There the first glyph is that of `!`, capitals stand on y = 22 and reach to 1, and `o` is half the advance. */
function strokeFontOf(chars: readonly { d: string; o: number }[]): StrokeFont {
  const glyphs: Record<string, { advance: number; lines: number[][] }> = { ' ': { advance: 16, lines: [] } };
  chars.slice(0, 94).forEach(({ d, o }, i) => {
    const lines = d
      .split('M')
      .map((line) =>
        (line.match(/-?[\d.]+/g) ?? []).map((number, k) => (k % 2 === 0 ? Number(number) : 22 - Number(number))),
      )
      .filter((line) => line.length >= 4);
    glyphs[String.fromCharCode(33 + i)] = { advance: 2 * o, lines };
  });
  return { capitals: 21, glyphs };
}

const pdfPackage = dirname(require.resolve('pdfjs-dist/package.json'));

/** Where a file that ships with a package readers use is; null for any other name. */
export function shippedAsset(name: string): string | null {
  if (Object.hasOwn(codecFiles, name)) return require.resolve(codecFiles[name]);
  return /^(?:standard_fonts|cmaps)\/[\w.-]+$/.test(name) ? join(pdfPackage, name) : null;
}

/** A file that ships with a package that readers use. @throws RangeError where no such file ships */
export async function shippedAssets(name: string): Promise<Uint8Array> {
  const path = shippedAsset(name);
  if (!path) throw new RangeError(`${name} does not ship`);
  return new Uint8Array(await readFile(path));
}

/** What readers need beside a file: fonts, and the files that stand in for those a PDF does not embed. */
export function shippedTools(more: readonly FontFile[] = []): ReadingTools {
  return { fonts: new FontBook([...more, ...shippedFonts()]), assets: shippedAssets };
}
