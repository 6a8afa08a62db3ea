import { type AppliedSettings, type Figure, type FigureSource, kerfOf } from '@lambent/core/recipes';
import { wholeDayOf } from '../../../stores/dates.ts';

/** Where a figure comes from, in a few words. */
export function figureWords(source: FigureSource | null): string {
  if (!source) return 'a guess to begin with';
  const when = wholeDayOf(source.on);
  return `${source.from} by ${source.by}, ${when}`;
}

/** Where the kerf that a layer is cut with comes from. */
export function kerfWords({ basis, sources }: AppliedSettings): string {
  if (sources.kerfMm?.kind === 'hand') return 'Typed for this job.';
  if (sources.kerfMm?.kind === 'key') return 'By the colour key.';
  const figure: Figure | null = kerfOf(basis?.recipe ?? null);
  if (!figure) return 'Not measured on this stock: cut along the line. A kerf comb measures it.';
  return figure.source ? `From the recipe: ${figureWords(figure.source)}.` : 'From the recipe.';
}
