import { FileRefused } from '../refusal.ts';

/*
 * DXF is pairs of lines: a group code and a value. Reading the pairs takes a page; the packages for it
 * drop hatches, spline weights and what they do not know, and give nothing at all of a file cut short.
 */

/** One group: its code and its value as text. */
export type Group = readonly [code: number, value: string];

/** What starts with a group 0: an entity, a table entry, a block. */
export class Raw {
  /**
   * @param line the line of the file on which it starts
   * @param from where its groups begin in the text
   */
  constructor(
    readonly type: string,
    readonly line: number,
    private readonly text: string,
    private readonly from: number,
  ) {}

  /** Read anew each time: a large file has too many groups to keep them all. */
  get groups(): readonly Group[] {
    const out: Group[] = [];
    const pairs = new Pairs(this.text, this.from);
    while (pairs.next() && pairs.code !== 0) out.push([pairs.code, pairs.value]);
    return out;
  }
}

export interface RawSections {
  /** Header variables by name, such as `$INSUNITS`. */
  readonly header: ReadonlyMap<string, readonly Group[]>;
  /** What stands in each section, by the section's name. */
  readonly sections: ReadonlyMap<string, readonly Raw[]>;
  /** The line at which the file ends without saying so, or stops making sense; null when it ends well. */
  readonly cutAt: number | null;
}

/** @throws FileRefused when there is not even a first section */
export function readSections(text: string): RawSections {
  const header = new Map<string, Group[]>();
  const sections = new Map<string, Raw[]>();
  let section: Raw[] | null = null;
  let inHeader = false;
  let variable: Group[] | null = null;
  let awaitingName = false;
  let ended = false;

  const pairs = new Pairs(text, 0);
  while (pairs.next()) {
    const { code, value } = pairs;
    if (code === 0) {
      if (value === 'SECTION') awaitingName = true;
      else if (value === 'ENDSEC') {
        section = null;
        inHeader = false;
      } else if (value === 'EOF') {
        ended = true;
        break;
      } else section?.push(new Raw(value, pairs.line, text, pairs.position));
    } else if (awaitingName && code === 2) {
      awaitingName = false;
      inHeader = value === 'HEADER';
      section = sections.get(value) ?? [];
      sections.set(value, section);
    } else if (inHeader && code === 9) {
      variable = [];
      header.set(value, variable);
    } else if (inHeader) variable?.push([code, value]);
  }
  if (sections.size === 0) throw new FileRefused('The file is a DXF without any content. Save it again as ASCII DXF.');
  return { header, sections, cutAt: ended ? null : pairs.line };
}

/** Goes through pairs of lines, up to the end or to where a line should be a code and is not. */
class Pairs {
  code = 0;
  value = '';
  /** The line of the pair's code, counted from 1. */
  line = 0;
  private lines = 0;

  /** @param position where the next pair begins */
  constructor(
    private readonly text: string,
    public position: number,
  ) {}

  /** Whether there is another pair; if so, it is in `code` and `value`. */
  next(): boolean {
    this.line = this.lines + 1;
    const head = this.readLine()?.trim() ?? '';
    if (!/^-?\d+$/.test(head)) return false;
    const value = this.readLine();
    if (value === null) return false;
    this.code = Number(head);
    this.value = value.trim();
    return true;
  }

  private readLine(): string | null {
    const { text, position } = this;
    if (position >= text.length) return null;
    const end = text.indexOf('\n', position);
    this.position = end < 0 ? text.length : end + 1;
    this.lines++;
    return text.slice(position, end < 0 ? text.length : end);
  }
}

/** Reads the groups of one record by code. */
export class Fields {
  readonly groups: readonly Group[];

  constructor(raw: Raw) {
    this.groups = raw.groups;
  }

  text(code: number): string | null {
    return this.groups.find(([known]) => known === code)?.[1] ?? null;
  }

  /** A number; `otherwise` where there is none or it is none. */
  number(code: number, otherwise: number): number {
    const text = this.text(code);
    const value = text === null || text === '' ? Number.NaN : Number(text);
    return Number.isFinite(value) ? value : otherwise;
  }

  all(code: number): string[] {
    return this.groups.filter(([known]) => known === code).map(([, value]) => value);
  }

  /** Every point whose x has this code and whose y has the code ten above it; z is the code twenty above. */
  points(code: number): { x: number; y: number; z: number }[] {
    const out: { x: number; y: number; z: number }[] = [];
    for (const [known, value] of this.groups) {
      if (known === code) out.push({ x: finite(value), y: 0, z: 0 });
      else if (known === code + 10 && out.length > 0) out[out.length - 1].y = finite(value);
      else if (known === code + 20 && out.length > 0) out[out.length - 1].z = finite(value);
    }
    return out;
  }

  point(code: number): { x: number; y: number; z: number } {
    return this.points(code)[0] ?? { x: 0, y: 0, z: 0 };
  }
}

/** A number within reason; 0 for what is none. */
export function finite(text: string): number {
  const value = Number(text);
  return Number.isFinite(value) && Math.abs(value) < 1e12 ? value : 0;
}
