import type { FitName } from '../document/ties.ts';
import type { Path } from '../geometry/paths/path.ts';
import type { Assembly } from './assembly/assembly.ts';
import type { Vec3 } from './assembly/space.ts';
import type { Fields, NumbersOf, Trouble } from './fields.ts';
import type { Label } from './stroke-letters.ts';

/** What a builder makes parts of. */
export interface Stock {
  /** As measured, in mm. */
  readonly thicknessMm: number;
  /** How much wider than what goes into it an opening is, for each fit of the material, in mm. */
  readonly plays: Readonly<Record<FitName, number>>;
}

/** An outline of the operator's own that a builder works on: its path about (0, 0), y down, in mm, filled by the even-odd rule. */
export interface SourceOutline {
  readonly name: string;
  readonly path: Path;
}

/** One piece that is cut out, about (0, 0), y down, seen from its outer face, in mm. */
export interface Part {
  /** Stays the same when numbers change. */
  readonly id: string;
  readonly name: string;
  /** Its outline and its holes. */
  readonly cut: Path;
  /** Lines that are scored, such as bends. */
  readonly score: Path;
  /** Letters that are scored. */
  readonly labels: readonly Label[];
}

/** What parts come to when they are put together, in mm. */
export interface BuiltSizes {
  readonly inside: Vec3 | null;
  readonly outside: Vec3;
  /** What it holds, in mm³, where that is not all of the inside. */
  readonly holdsMm3?: number;
}

/** A figure that only this builder knows, such as the smallest radius. */
export interface BuiltNote {
  readonly label: string;
  readonly value: number;
  /** Whether it is a length in mm, or a plain count. */
  readonly isLength: boolean;
}

/** Parts that go together. */
export interface Built {
  readonly parts: readonly Part[];
  readonly sizes: BuiltSizes;
  readonly assembly: Assembly;
  /** Between the parts of a joint, over both its faces, in mm. */
  readonly playMm: number;
  readonly notes?: readonly BuiltNote[];
}

/** What comes of numbers: parts, or what is wrong with the numbers. */
export type BuildAnswer =
  | { readonly ok: true; readonly built: Built }
  | { readonly ok: false; readonly troubles: readonly Trouble[] };

/**
 * Makes parts from numbers. Form, command line, docs and tests read what it says of itself. Fields of the same name mean the
 * same with every builder: `measured`, `width`, `depth` and `height` are a size inside or outside, `fit` and `play` a fit.
 */
export interface Builder<F extends Fields = Fields> {
  readonly id: string;
  /** What it is called on the command line. */
  readonly word: string;
  readonly name: string;
  /** What it makes, in a sentence. */
  readonly about: string;
  /** In the order in which they are asked for. */
  readonly fields: F;
  /** Which fields mean something, given the others; all where there is nothing. */
  readonly asks?: (numbers: NumbersOf<F>) => readonly (keyof F & string)[];
  /** What the outlines are called that it works on; nothing where it takes none. */
  readonly takes?: readonly string[];
  /** On each of these outlines what its numbers point out: an edge, a line. Empty where there is no such thing. */
  readonly marks?: (numbers: NumbersOf<F>, outlines: readonly SourceOutline[]) => readonly Path[];
  /** Parts, or what is wrong with numbers that are each within their limits. Outlines are as many as it takes. */
  readonly build: (
    numbers: NumbersOf<F>,
    stock: Stock,
    outlines: readonly SourceOutline[],
  ) => Built | readonly Trouble[];
}
