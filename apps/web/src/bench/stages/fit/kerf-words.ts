import { type AppliedSettings, type Figure, type FigureSource, kerfOf } from '@lambent/core/recipes';
import { wholeDayOf } from '../../../stores/dates.ts';
import { t } from '../../../words/words.ts';

/** Where a figure comes from, in a few words. */
export function figureWords(source: FigureSource | null): string {
  if (!source) return t('a guess to begin with');
  const when = wholeDayOf(source.on);
  return t('{{from}} by {{by}}, {{when}}', { from: source.from, by: source.by, when });
}

/** Where the kerf that a layer is cut with comes from. */
export function kerfWords({ basis, sources }: AppliedSettings): string {
  if (sources.kerfMm?.kind === 'hand') return t('Typed for this job.');
  if (sources.kerfMm?.kind === 'key') return t('By the colour key.');
  const figure: Figure | null = kerfOf(basis?.recipe ?? null);
  if (!figure) return t('Not measured on this stock: cut along the line. A kerf comb measures it.');
  return figure.source
    ? t('From the recipe: {{source}}.', { source: figureWords(figure.source) })
    : t('From the recipe.');
}
