import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import type { DrawingJson } from '@lambent/core';
import { DrawingEntity } from './entities.ts';

const zip = promisify(gzip);
const unzip = promisify(gunzip);

/** A drawing as it is stored, under the hash of its JSON. */
export async function packDrawing(drawing: DrawingJson): Promise<DrawingEntity> {
  const text = JSON.stringify(drawing);
  const entity = new DrawingEntity();
  entity.hash = createHash('sha256').update(text).digest('hex');
  entity.itemCount = drawing.items.length;
  entity.json = await zip(text, { level: 4 });
  return entity;
}

export async function unpackDrawing(entity: DrawingEntity): Promise<DrawingJson> {
  return JSON.parse((await unzip(entity.json)).toString('utf8')) as DrawingJson;
}
