import { formatLength, type LengthUnit } from './length.ts';
import { formatSpeed, type SpeedUnit } from './speed.ts';

/** A number as sentences have it, such as `12.5` or `20,000`. */
const figure = String.raw`[-−]?(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?`;

/** Figures that share what follows them: `12.5`, `600 × 400`, `10 to 20`. */
const figures = String.raw`(?<![\p{L}\d.,])${figure}(?: (?:×|to|and) ${figure})*`;
const lengthsInMm = new RegExp(String.raw`${figures} mm(?![\p{L}\d/²])`, 'gu');
const speedsInMm = new RegExp(String.raw`${figures} mm/s(?![\p{L}\d²])`, 'gu');

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
  return inUnit(sentence, lengthsInMm, ' mm', unit, (mm) => formatLength(mm, unit, { bare: true }));
}

/** A sentence whose speeds are in mm/s, with its speeds in another unit. As a share of whose top speed is not known: as it is. */
export function speedsIn(sentence: string, unit: SpeedUnit): string {
  if (unit === 'mm/s' || unit === '%' || !sentence.includes(' mm/s')) return sentence;
  return inUnit(sentence, speedsInMm, ' mm/s', unit, (speed) => formatSpeed(speed, unit, 1).split(' ')[0]);
}

/** A sentence with all figures before a unit in another one; what is quoted stays. */
function inUnit(sentence: string, all: RegExp, was: string, unit: string, format: (value: number) => string): string {
  const said = (text: string) => format(Number(text.replaceAll(',', '').replace('−', '-')));
  const replaced = (found: string, place: number, whole: string) => {
    const before = found.slice(0, -was.length);
    const [, name, own] = (endsInName.test(whole.slice(0, place)) && lastFigure.exec(before)) || [];
    return `${own === undefined ? before.replace(oneFigure, said) : name + said(own)} ${unit}`;
  };
  return sentence
    .split(/(“[^”]*”)/u)
    .map((part) => (part.startsWith('“') ? part : part.replace(all, replaced)))
    .join('');
}
