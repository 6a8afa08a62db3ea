import { pictureKind } from './picture/describe.ts';
import type { FileFormat } from './reading.ts';
import { isBinaryStl } from './stl/parse.ts';
import { isGzip } from './unpack.ts';

/** What a file is, going by its content; or why none of it can be taken. */
export function sniffFormat(bytes: Uint8Array): FileFormat | { readonly refusal: string } {
  if (pictureKind(bytes)) return 'picture';
  // What is compressed is SVG, or refused once it is unpacked.
  if (isGzip(bytes)) return 'svg';
  const head = latin(bytes.subarray(0, 1024));
  if (head.includes('%PDF-')) return 'pdf';
  if (/^\s*%!/.test(head)) {
    return refuse(
      'The file is PostScript, which is a program and not a drawing. Open it where it was made and save it as PDF.',
    );
  }
  const plain = head.replace(/^(?:\u00EF\u00BB\u00BF|\u00FF\u00FE|\u00FE\u00FF)/, '').replaceAll('\0', '');
  if (/^\w+ Binary DXF/.test(plain)) {
    return refuse('The file is a binary DXF. Save it as ASCII DXF, version R12 to 2018.');
  }
  if (/^AC10\d\d/.test(plain))
    return refuse('The file is a DWG drawing, whatever its name says. Save it as ASCII DXF.');
  if (plain.startsWith('PK')) return refuse('The file is a ZIP archive. Unpack it and bring in the drawing inside.');
  if (isBinaryStl(bytes)) return 'stl';
  if (/^\s*</.test(plain)) return 'svg';
  if (/^\s*solid\b/.test(plain)) return 'stl';
  if (/^\s*(?:999\s*\r?\n[^\n]*\r?\n\s*)*0\s*\r?\n\s*(?:SECTION|EOF)/.test(plain)) return 'dxf';
  if (plain.trim() === '') return refuse('The file is empty. Save or send it again.');
  return refuse(
    'The file is none of the formats that are read here: SVG, DXF, PDF, PNG, JPEG, WebP, GIF, BMP and STL. Save the drawing as one of them.',
  );
}

function refuse(refusal: string): { refusal: string } {
  return { refusal };
}

function latin(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return text;
}
