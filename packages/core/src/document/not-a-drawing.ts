import { Mismatch, type Schema } from '../schema/schema.ts';

/** Says what in stored or sent JSON is not a drawing. */
export class NotADrawing extends Error {
  override readonly name = 'NotADrawing';
}

/** Reads what a schema describes. @param where names it in a refusal @throws NotADrawing naming what is wrong */
export function readBy<T>(schema: Schema<T>, json: unknown, where: string): T {
  try {
    return schema.read(json);
  } catch (error) {
    if (error instanceof Mismatch) throw new NotADrawing(error.within(where).message);
    throw error;
  }
}
