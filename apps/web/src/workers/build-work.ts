import {
  type BuildAnswer,
  type BuiltFigures,
  build,
  builders,
  reportOfBuilt,
  type SourceOutline,
  type Stock,
} from '@lambent/core/builders';
import type { BuiltThing } from '@lambent/core/document';

/** What came of numbers: parts and their figures, or what is wrong. */
export type BuiltAnswer =
  | (Extract<BuildAnswer, { ok: true }> & { readonly figures: BuiltFigures })
  | Extract<BuildAnswer, { ok: false }>;

/** Parts from numbers. @throws Error where there is no such builder */
export function builtBy(
  builderId: string,
  numbers: BuiltThing['numbers'],
  stock: Stock,
  outlines: readonly SourceOutline[],
): BuiltAnswer {
  const builder = builders.find(({ id }) => id === builderId);
  if (!builder) throw new Error(`There is no builder ${builderId}.`);
  const answer = build(builder, numbers, stock, outlines);
  return answer.ok ? { ...answer, figures: reportOfBuilt(answer.built) } : answer;
}
