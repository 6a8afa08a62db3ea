import {
  type Builder,
  type Built,
  builders,
  build as buildParts,
  type Field,
  familyFromText,
  inRows,
  NotAFamily,
  partItems,
  reportOfBuilt,
  type SourceOutline,
  sourcesFrom,
} from '@lambent/core/builders';
import type { Outgoing, OutgoingLayer } from '@lambent/core/formats';
import { growBox } from '@lambent/core/geometry';
import { operationOf } from '@lambent/core/operations';
import { playsOf } from '@lambent/core/recipes';
import { parseLength, parseLengths } from '@lambent/core/units';
import { Command, CommanderError } from 'commander';
import { drawingKind, writeOutgoing } from './drawing-out.ts';
import { nameOf, readBytes, readDrawing, sayTo, standard, write } from './files.ts';
import { lengthWord } from './length-word.ts';
import { Unusable } from './unusable.ts';

/** What every builder is asked beside its own numbers. */
interface BuildOptions {
  readonly stock: string;
  readonly out?: string;
  readonly as?: string;
  readonly report?: string;
  readonly row: string;
  readonly gap: string;
  readonly inside?: string;
  readonly outside?: string;
  readonly numbers?: string;
  readonly parts?: string;
  readonly [field: string]: string | undefined;
}

/** The three sides of a size, and whether that is inside or outside: one word on the command line. */
const sides = ['width', 'depth', 'height'] as const;
const sized: readonly string[] = ['measured', ...sides];

/** Whether a field is part of --inside and --outside, which stand for it. */
const isInSize = (builder: Builder, name: string) => 'measured' in builder.fields && sized.includes(name);

/**
 * Makes parts from numbers, and writes them as a drawing.
 *
 * @param words the words after the builder's
 * @returns the exit status: 1 where the parts would not go together
 * @throws Unusable when there is no such builder, or a number cannot be
 */
export async function build(word: string | undefined, words: readonly string[]): Promise<number> {
  const builder = builders.find((known) => known.word === word);
  if (!builder) {
    const known = builders.map((entry) => entry.word).join(', ');
    throw new Unusable(`${word === undefined ? 'Say what to build' : `There is no “${word}” to build`}: ${known}.`);
  }
  const command = commandFor(builder);
  command.exitOverride().configureOutput({ outputError: () => {} });
  try {
    command.parse([...words], { from: 'user' });
  } catch (error) {
    if (!(error instanceof CommanderError)) throw error;
    if (error.exitCode === 0) return 0;
    const said = error.message.replace(/^error: /, '').replace(/\.?$/, '.');
    throw new Unusable(said.charAt(0).toUpperCase() + said.slice(1));
  }
  return writeBuilt(builder, command.opts<BuildOptions>());
}

/** What can be built, a line each. */
export function buildList(): string {
  const widest = Math.max(...builders.map(({ word }) => word.length));
  return `${builders.map(({ word, about }) => `${word.padEnd(widest + 2)}${about}`).join('\n')}\n`;
}

/** The command of a builder: its fields are its options. */
function commandFor(builder: Builder): Command {
  const command = new Command(`lambent build ${builder.word}`)
    .description(builder.about)
    .requiredOption('--stock <length>', 'how thick the stock is, as measured, such as 3.06mm')
    .option('--numbers <file>', 'numbers that were kept in the shop, as JSON; other options change them')
    .option('--out <file>', 'write the parts here: .svg, .dxf or .pdf')
    .option('--as <format>', 'svg, dxf or pdf, where the name does not say it')
    .option('--report <file>', 'write the report here, as JSON')
    .option('--row <length>', 'how wide a row of parts may be', '600mm')
    .option('--gap <length>', 'how far apart parts lie', '4mm');
  if (builder.takes) {
    const said = builder.takes.map((name) => name.toLowerCase()).join(', then ');
    command.requiredOption('--parts <file>', `a drawing of ${builder.takes.length} closed outlines: ${said}`);
  }
  const fields = Object.entries(builder.fields);
  if ('measured' in builder.fields) {
    const usual = sides.map((side) => builder.fields[side].usual).join('x');
    command.option('--inside <sizes>', `what it is to hold: width x depth x height in mm (default: ${usual})`);
    command.option('--outside <sizes>', 'how large it is to be outside, instead');
  }
  for (const [name, field] of fields) {
    if (isInSize(builder, name)) continue;
    command.option(`${flagOf(name)} <${valueName(field)}>`, said(field));
  }
  return command.addHelpText(
    'after',
    '\nExit status: 0 written; 1 the parts would not go together; 2 a number cannot be.',
  );
}

const flagOf = (name: string) => `--${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;

const valueName = ({ kind }: Field) =>
  ({
    length: 'length',
    lengths: 'lengths',
    quantity: 'number',
    count: 'number',
    edge: 'number',
    choice: 'word',
    yes: 'yes or no',
  })[kind];

function said(field: Field): string {
  const { label, about } = field;
  const options = field.kind === 'choice' ? `: ${Object.keys(field.options).join(', ')}` : '';
  const usual = usualWord(field);
  return `${about ? `${label}. ${about.replace(/\.$/, '')}` : label}${options} (default: ${usual})`;
}

function usualWord(field: Field): string {
  switch (field.kind) {
    case 'yes':
      return field.usual ? 'yes' : 'no';
    case 'length':
      return `${field.usual}mm`;
    case 'quantity':
      return `${field.usual} ${field.unit}`;
    case 'edge':
      return 'the longest; else counted as the outline goes round, from 1';
    case 'lengths':
      return `"${field.usual.join('; ')}"`;
    default:
      return String(field.usual);
  }
}

/**
 * What the options say of a builder's fields; lengths in mm.
 * @throws Unusable where a word is none of what a field takes
 */
function numbersIn(builder: Builder, options: BuildOptions): Record<string, unknown> {
  const numbers: Record<string, unknown> = {};
  for (const measured of ['inside', 'outside'] as const) {
    const word = options[measured];
    if (word === undefined) continue;
    if (numbers.measured !== undefined) throw new Unusable('Give --inside or --outside, and not both.');
    const sizes = word.split(/[x×]/i).map((side) => parseLength(side, 'mm'));
    if (sizes.length !== sides.length || !sizes.every(({ ok }) => ok)) {
      throw new Unusable(`--${measured} must be three lengths such as 154x104x64, and not “${word}”.`);
    }
    numbers.measured = measured;
    for (const [i, size] of sizes.entries()) if (size.ok) numbers[sides[i]] = size.value;
  }
  for (const [name, field] of Object.entries(builder.fields)) {
    const word = options[name];
    if (word === undefined || isInSize(builder, name)) continue;
    numbers[name] = valueIn(flagOf(name), field, word);
  }
  if (options.play !== undefined && 'fit' in builder.fields) {
    if (options.fit !== undefined) throw new Unusable('Give --fit or --play, and not both.');
    numbers.fit = 'typed';
    // Nominal parts: nothing has play.
    if (numbers.play === 0 && 'lidPlay' in builder.fields) numbers.lidPlay ??= 0;
  }
  return numbers;
}

function valueIn(flag: string, field: Field, word: string): unknown {
  if (field.kind === 'choice') return word;
  if (field.kind === 'yes') {
    if (word === 'yes' || word === 'no') return word === 'yes';
    throw new Unusable(`${flag} must be yes or no, and not “${word}”.`);
  }
  if (field.kind === 'count' || field.kind === 'quantity' || field.kind === 'edge') return Number(word);
  const parsed = field.kind === 'lengths' ? parseLengths(word, 'mm') : parseLength(word, 'mm');
  if (parsed.ok) return parsed.value;
  if (field.kind === 'lengths')
    throw new Unusable(`${flag} must be lengths such as "60; 60; 2in", and not “${word}”. ${parsed.reason}`);
  throw new Unusable(`${flag} must be a length such as 3.06mm, and not “${word}”.`);
}

/** Numbers of a builder that were taken out of a shop. @throws Unusable where the file holds none for it */
async function keptNumbers(builder: Builder, path: string): Promise<Record<string, unknown>> {
  const text = (await readBytes(path)).toString('utf8');
  try {
    const family = familyFromText(text, '');
    if (family.builder === builder.id) return family.numbers;
    throw new Unusable(`${path} holds numbers for “${family.builder}”, and not for ${builder.id}.`);
  } catch (error) {
    if (error instanceof NotAFamily) throw new Unusable(`${path}: ${error.message}`);
    throw error;
  }
}

/** The outlines that a builder works on. @throws Unusable where the drawing does not hold just these */
async function outlinesIn(builder: Builder, path: string): Promise<readonly SourceOutline[]> {
  const { items } = await readDrawing(path, {});
  const found = sourcesFrom(
    items.filter(({ hidden }) => !hidden),
    builder,
  );
  if (!found.ok) throw new Unusable(`${nameOf(path)}: ${found.message}`);
  return found.sources.outlines;
}

/** Builds, writes what was asked for, and says what came of it. */
async function writeBuilt(builder: Builder, options: BuildOptions): Promise<number> {
  const kind = options.out === undefined ? null : drawingKind(options.out, options.as);
  const length = (flag: 'stock' | 'row' | 'gap') => lengthWord(`--${flag}`, options[flag], 'a length such as 4mm');
  const stock = { thicknessMm: length('stock'), plays: playsOf(null) };
  const kept = options.numbers === undefined ? {} : await keptNumbers(builder, options.numbers);
  const outlines = options.parts === undefined ? [] : await outlinesIn(builder, options.parts);
  const answer = buildParts(builder, { ...kept, ...numbersIn(builder, options) }, stock, outlines);
  if (!answer.ok) {
    const said = answer.troubles.map(({ field, message, nearest }) => {
      const remedy = nearest === null ? '' : ` The nearest that can be: ${nearest}.`;
      return `${field in builder.fields && !isInSize(builder, field) ? `${flagOf(field)}: ` : ''}${message}${remedy}`;
    });
    throw new Unusable(said.join('\n'));
  }
  const { built } = answer;
  if (options.out !== undefined && kind) {
    await writeOutgoing(options.out, partsOut(built, length('row'), length('gap')), kind);
  }
  const figures = reportOfBuilt(built);
  if (options.report !== undefined) {
    const whole = { builder: builder.id, stockMm: stock.thicknessMm, ...figures };
    await write(options.report, `${JSON.stringify(whole, null, 2)}\n`);
  }
  const say = sayTo(options.out === standard || options.report === standard);
  const size = (mm: readonly number[]) => mm.map((side) => Number(side.toFixed(2))).join(' × ');
  const inside = figures.insideMm ? `inside ${size(figures.insideMm)} mm, ` : '';
  say(
    `${builder.name}: ${figures.parts.length} ${figures.parts.length === 1 ? 'part' : 'parts'}, ${inside}outside ${size(figures.outsideMm)} mm`,
  );
  say(`cut ${(figures.cutMm / 1000).toFixed(2)} m, play in each joint ${Number(figures.playMm.toFixed(3))} mm`);
  for (const { label, value, isLength } of figures.notes) {
    say(`${label.toLowerCase()} ${Number(value.toFixed(2))}${isLength ? ' mm' : ''}`);
  }
  say(
    figures.assembly.goesTogether
      ? 'Goes together: nothing overlaps, nothing gapes.'
      : 'Does not go together: see the report.',
  );
  return figures.assembly.goesTogether ? 0 : 1;
}

/** Parts in rows, each as layers of its own: what is cut of it, and what is scored. */
function partsOut({ parts }: Built, rowMm: number, gapMm: number): Outgoing {
  const { places, bounds } = inRows(parts, rowMm, gapMm);
  let made = 0;
  const layers = parts.flatMap((part, i) =>
    partItems(part, places[i], () => `part-${++made}`).map((item, k): OutgoingLayer => {
      const operation = k === 0 ? 'cut' : 'score';
      const { colour } = operationOf(operation);
      return { name: part.name, meant: { id: operation, operation }, colour, items: [item] };
    }),
  );
  return { page: growBox(bounds, gapMm), layers, pictures: new Map() };
}
