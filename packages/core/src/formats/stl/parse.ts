import { FileRefused } from '../refusal.ts';

/** Corners of triangles: nine numbers each, x y z of three points. */
export type Mesh = Float64Array;

const headerBytes = 84;
const triangleBytes = 50;

/** Whether the length of a file is that of a binary STL with as many triangles as it says. */
export function isBinaryStl(bytes: Uint8Array): boolean {
  if (bytes.length < headerBytes + triangleBytes) return false;
  const count = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
  return count > 0 && bytes.length === headerBytes + count * triangleBytes;
}

/** @throws FileRefused when there is no triangle in it */
export function readMesh(bytes: Uint8Array): { mesh: Mesh; damaged: number } {
  const { mesh, damaged } = isBinaryStl(bytes) ? binary(bytes) : ascii(new TextDecoder('utf-8').decode(bytes));
  if (mesh.length === 0) {
    throw new FileRefused('The solid has no triangles that can be read. Save it again as STL.');
  }
  return { mesh, damaged };
}

function binary(bytes: Uint8Array): { mesh: Mesh; damaged: number } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint32(80, true);
  const out: number[] = [];
  let damaged = 0;
  for (let i = 0; i < count; i++) {
    const start = headerBytes + i * triangleBytes + 12;
    const corner: number[] = [];
    for (let k = 0; k < 9; k++) corner.push(view.getFloat32(start + 4 * k, true));
    if (corner.every(isSane)) out.push(...corner);
    else damaged++;
  }
  return { mesh: new Float64Array(out), damaged };
}

function ascii(text: string): { mesh: Mesh; damaged: number } {
  const out: number[] = [];
  let damaged = 0;
  for (const [facet] of text.matchAll(/outer\s+loop[\s\S]*?endloop/gi)) {
    const corner = [...facet.matchAll(/vertex\s+(\S+)\s+(\S+)\s+(\S+)/gi)].flatMap(([, x, y, z]) => [+x, +y, +z]);
    if (corner.length === 9 && corner.every(isSane)) out.push(...corner);
    else damaged++;
  }
  return { mesh: new Float64Array(out), damaged };
}

const isSane = (value: number) => Number.isFinite(value) && Math.abs(value) < 1e6;
