import { formatLength, type LengthUnit } from './length.ts';

/** A number as sentences have it, such as `12.5` or `20,000`. */
const figure = String.raw`[-−]?(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?`;

/** Lengths in mm that share a unit: `12.5 mm`, `600 × 400 mm`, `10 to 20 mm`. */
const lengthsInMm = new RegExp(
  String.raw`(?<![\p{L}\d.,])${figure}(?: (?:×|to|and) ${figure})* mm(?![\p{L}\d/²])`,
  'gu',
);

const oneFigure = new RegExp(figure, 'gu');
const lastFigure = new RegExp(`^(.*(?:to|and) )(${figure})$`, 'u');

/** What ends in a name, such as `Layer ` before `2`: the number after it is part of the name. */
const endsInName = /(?:^|[^\p{L}])(?!From )\p{Lu}\p{L}* $/u;

/**
 * A sentence whose lengths are in mm, with its lengths in another unit. What is quoted (“50 mm”) is a name, and stays; so do
 * speeds and what else is by the mm.
 */
export function lengthsIn(sentence: string, unit: LengthUnit): string {
  if (unit === 'mm' || !sentence.includes(' mm')) return sentence;
  const said = (text: string) => {
    const mm = Number(text.replaceAll(',', '').replace('−', '-'));
    return formatLength(mm, unit, { bare: true });
  };
  const inUnit = (lengths: string, place: number, whole: string) => {
    const figures = lengths.slice(0, -' mm'.length);
    const [, name, own] = (endsInName.test(whole.slice(0, place)) && lastFigure.exec(figures)) || [];
    return `${own === undefined ? figures.replace(oneFigure, said) : name + said(own)} ${unit}`;
  };
  return sentence
    .split(/(“[^”]*”)/u)
    .map((part) => (part.startsWith('“') ? part : part.replace(lengthsInMm, inUnit)))
    .join('');
}
