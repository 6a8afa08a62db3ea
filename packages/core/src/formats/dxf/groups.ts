import { FileRefused } from '../refusal.ts';

/*
 * DXF is pairs of lines: a group code and a value. Reading the pairs takes a page; the packages for it
 * drop hatches, spline weights and what they do not know, and give nothing at all of a file cut short.
 */

/** One group: its code and its value as text. */
export type Group = readonly [code: number, value: string];

/** What starts with a group 0: an entity, a table entry, a block. */
export interface Raw {
  readonly type: string;
  readonly groups: readonly Group[];
  /** The line of the file on which it starts. */
  readonly line: number;
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
  let record: { type: string; groups: Group[]; line: number } | null = null;
  let cutAt: number | null = null;
  let awaitingName = false;
  let ended = false;

  for (const { code, value, line } of pairs(text)) {
    if (code === null) {
      cutAt = line;
      break;
    }
    if (code === 0) {
      record = null;
      if (value === 'SECTION') awaitingName = true;
      else if (value === 'ENDSEC') {
        section = null;
        inHeader = false;
      } else if (value === 'EOF') {
        ended = true;
        break;
      } else if (section) {
        record = { type: value, groups: [], line };
        section.push(record);
      }
    } else if (awaitingName && code === 2) {
      awaitingName = false;
      inHeader = value === 'HEADER';
      section = sections.get(value) ?? [];
      sections.set(value, section);
    } else if (inHeader && code === 9) {
      variable = [];
      header.set(value, variable);
    } else if (inHeader) variable?.push([code, value]);
    else record?.groups.push([code, value]);
  }
  if (sections.size === 0) throw new FileRefused('The file is a DXF without any content. Save it again as ASCII DXF.');
  if (!ended) cutAt ??= text.split('\n').length;
  return { header, sections, cutAt: ended ? null : cutAt };
}

/** Every pair of lines; a code of null where a line should be a code and is not. */
function* pairs(text: string): Generator<{ code: number | null; value: string; line: number }> {
  let at = 0;
  let line = 0;
  const next = (): string | null => {
    if (at >= text.length) return null;
    let end = text.indexOf('\n', at);
    if (end < 0) end = text.length;
    const read = text.slice(at, end);
    at = end + 1;
    line++;
    return read;
  };
  for (;;) {
    const head = next();
    if (head === null) return;
    const started = line;
    const word = head.trim();
    if (word === '' && at >= text.length) return;
    const code = /^-?\d+$/.test(word) ? Number(word) : null;
    const value = code === null ? null : next();
    if (code === null || value === null) {
      yield { code: null, value: '', line: started };
      return;
    }
    yield { code, value: value.trim(), line: started };
  }
}

/** Reads the groups of one record by code. */
export class Fields {
  constructor(readonly raw: Raw) {}

  text(code: number): string | null {
    return this.raw.groups.find(([known]) => known === code)?.[1] ?? null;
  }

  /** A number; `otherwise` where there is none or it is none. */
  number(code: number, otherwise: number): number {
    const text = this.text(code);
    const value = text === null || text === '' ? Number.NaN : Number(text);
    return Number.isFinite(value) ? value : otherwise;
  }

  all(code: number): string[] {
    return this.raw.groups.filter(([known]) => known === code).map(([, value]) => value);
  }

  /** Every point whose x has this code and whose y has the code ten above it; z is the code twenty above. */
  points(code: number): { x: number; y: number; z: number }[] {
    const out: { x: number; y: number; z: number }[] = [];
    for (const [known, value] of this.raw.groups) {
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
