import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { type Sheet, sheetCorners } from '@lambent/core/document';
import { fromMachine, type Machine, toMachine } from '@lambent/core/machine';
import { type BurntPicture, type Material, thicknessOf } from '@lambent/core/recipes';

/*
 * What a stand-in has to be told because it cannot see, and what it shows: docs/stand-in.md.
 */

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];

/** So many fit on the longest line that a stand-in takes. */
const mostSheets = 250;

/** The sheets on the bed as a stand-in is told of them, in the machine's own frame, as JSON. */
export function sheetsOn(sheets: readonly Sheet[], machine: Machine, materials: readonly Material[]): string {
  const told = sheets.slice(0, mostSheets).flatMap((sheet) => {
    const material = materials.find(({ id }) => id === sheet.materialId);
    if (!material) return [];
    const corners = sheetCorners(sheet).map(({ x, y }) => toMachine(machine, x, y));
    return {
      corners: corners.map(({ x, y }) => [x, y]),
      kind: material.family ?? material.name,
      thickness: sheet.thicknessMm ?? thicknessOf(material),
    };
  });
  return JSON.stringify(told);
}

/** A burnt picture with its points gzipped. */
export type PackedPicture = Omit<BurntPicture, 'codes'> & { readonly codes: Buffer };

/** Takes the answer to the word `look`: the picture as it lies on the bed; null where there is nothing to see. */
export async function pictureFrom(answer: string, machine: Machine): Promise<PackedPicture | null> {
  const shown = answer.startsWith('{') ? JSON.parse(answer) : null;
  if (!shown) return null;
  const { x, y, pitch, width, height } = shown as Record<string, number>;
  const packed = Buffer.from(shown.codes, 'base64');
  const down = machine.origin === 'top-left';
  const { x: left, y: top } = fromMachine(machine, x, down ? y : y + height * pitch);
  const place = { x: left, y: top, pitchMm: pitch, width, height };
  return { ...place, codes: down ? packed : await zip(upsideDown(await unzip(packed), width)) };
}

function upsideDown(rows: Buffer, width: number): Buffer {
  const turned = Buffer.alloc(rows.length);
  for (let from = 0; from < rows.length; from += width) {
    rows.copy(turned, rows.length - from - width, from, from + width);
  }
  return turned;
}
