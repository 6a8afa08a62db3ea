import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { type Sheet, sheetFrame, sheetOutline } from '@lambent/core/document';
import { flatten, simplifyRing, transformPath } from '@lambent/core/geometry';
import { fromMachine, type Machine, toMachine } from '@lambent/core/machine';
import { type BurntPicture, type Material, thicknessOf } from '@lambent/core/recipes';

/*
 * What a stand-in has to be told because it cannot see, and what it shows: docs/stand-in.md.
 */

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];

/** The longest line that a stand-in takes, in characters, with room for the word. */
const longestTold = 65_000;
/** So many fit on it. */
const mostSheets = 250;
/** How far the outlines that are told stray from those of the sheets, in mm: at first, and at most. */
const [leastStray, mostStray] = [0.05, 25];

/** The sheets on the bed as a stand-in is told of them, in the machine's own frame, as JSON. */
export function sheetsOn(sheets: readonly Sheet[], machine: Machine, materials: readonly Material[]): string {
  for (let stray = leastStray; stray < mostStray; stray *= 2) {
    const told = sheetsTold(sheets, materials, (sheet) => ringsTold(sheet, machine, stray));
    if (told.length <= longestTold) return told;
  }
  // Too many holes: the outlines alone, as rectangles.
  return sheetsTold(sheets, materials, ({ outline: _, ...sheet }) => ringsTold(sheet, machine, leastStray));
}

function sheetsTold(
  sheets: readonly Sheet[],
  materials: readonly Material[],
  ringsOf: (sheet: Sheet) => number[][],
): string {
  const told = sheets.slice(0, mostSheets).flatMap((sheet) => {
    const material = materials.find(({ id }) => id === sheet.materialId);
    if (!material) return [];
    const thickness = sheet.thicknessMm ?? thicknessOf(material);
    return { rings: ringsOf(sheet), kind: material.family ?? material.name, thickness };
  });
  return JSON.stringify(told);
}

/** A sheet's outline and its holes in the machine's own frame, in whole hundredths of a mm. */
function ringsTold(sheet: Sheet, machine: Machine, stray: number): number[][] {
  const lines = flatten(transformPath(sheetOutline(sheet), sheetFrame(sheet)), leastStray);
  return lines.map(({ points }) => {
    const ring = simplifyRing(points, stray);
    return Array.from({ length: ring.length / 2 }, (_, i) => toMachine(machine, ring[2 * i], ring[2 * i + 1])).flatMap(
      ({ x, y }) => [x, y].map((mm) => Math.round(mm * 100) / 100),
    );
  });
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
