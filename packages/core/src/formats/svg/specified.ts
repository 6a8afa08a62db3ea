import { properties } from './properties.ts';

/** What is said of each property, by its name. */
export type Declared = Readonly<Record<string, string>>;

/** More references than this in one value are no style that anyone wrote: they double themselves, or go round. */
const mostReferences = 500;
/** A value longer than this is no value. */
const longest = 10_000;

/**
 * Puts the values of custom properties where `var()` refers to them (CSS Custom Properties 1, section 3). A property
 * whose reference leads nowhere, and that has no fallback, is as if it were unset.
 *
 * @param variables custom properties by name, as the element has them
 */
export function withVariables(declared: Declared, variables: Declared): Declared {
  const out: Record<string, string> = {};
  for (const name in declared) {
    const value = declared[name];
    out[name] = value.includes('var(') ? (substituted(value, variables, { left: mostReferences }) ?? 'unset') : value;
  }
  return out;
}

function substituted(value: string, variables: Declared, budget: { left: number }): string | null {
  let out = '';
  let rest = value;
  for (let start = rest.search(/\bvar\(/); start >= 0; start = rest.search(/\bvar\(/)) {
    const end = closing(rest, start + 3);
    if (end < 0 || budget.left-- <= 0) return null;
    const inside = rest.slice(start + 4, end);
    const comma = inside.indexOf(',');
    const name = (comma < 0 ? inside : inside.slice(0, comma)).trim();
    const chosen = variables[name] ?? (comma < 0 ? null : inside.slice(comma + 1).trim());
    const read = chosen === null ? null : substituted(chosen, variables, budget);
    if (read === null || out.length + read.length > longest) return null;
    out += rest.slice(0, start) + read;
    rest = rest.slice(end + 1);
  }
  return (out + rest).trim();
}

/** Where the bracket that opens at `open` closes; −1 where it does not. */
function closing(text: string, open: number): number {
  let depth = 0;
  for (let i = open; i < text.length; i++) {
    if (text[i] === '(') depth++;
    else if (text[i] === ')' && --depth === 0) return i;
  }
  return -1;
}

/** The custom properties of an element: its own over those it takes over. */
export function ownVariables(declared: Declared, inherited: Declared): Declared {
  let out: Record<string, string> | null = null;
  for (const name in declared) {
    if (!name.startsWith('--')) continue;
    out ??= { ...inherited };
    if (/^(?:inherit|unset|revert)$/.test(declared[name])) continue;
    if (declared[name] === 'initial') delete out[name];
    else out[name] = declared[name];
  }
  return out ?? inherited;
}

/**
 * Follows the words that any property may have: `inherit`, `initial`, `unset`, `revert` (CSS Cascade 4, section 7.3).
 * What is inherited anyway is left out, so that it is.
 *
 * @param parent gives what the element's parent says of a property that is not inherited by itself
 */
export function withoutKeywords(declared: Declared, parent: (name: string) => string | undefined): Declared {
  const out: Record<string, string> = {};
  for (const name in declared) {
    const value = declared[name];
    const word = /^\s*(inherit|initial|unset|revert|revert-layer)\s*$/i.exec(value)?.[1].toLowerCase();
    const { inherited = false, initial = null } = properties[name] ?? {};
    if (word === undefined) out[name] = value;
    else if (word === 'initial') {
      if (initial !== null) out[name] = initial;
    } else if (word === 'inherit' && !inherited) {
      const said = parent(name);
      if (said !== undefined) out[name] = said;
    }
  }
  return out;
}

/**
 * Puts what a declaration says into `into`; one that stands for several as what it says of each (CSS Fonts 4, section
 * 4.7, and SVG 2, section 13.8.3).
 */
export function putDeclaration(into: Record<string, string>, property: string, value: string): void {
  if (property.startsWith('--')) into[property] = value;
  else if (property.toLowerCase() === 'font') Object.assign(into, partsOfFont(value));
  else if (property.toLowerCase() === 'marker') {
    for (const where of ['start', 'mid', 'end']) into[`marker-${where}`] = value;
  } else into[property.toLowerCase()] = value;
}

/** The parts of `font`: style, weight, size and families; nothing where it makes no sense. */
function partsOfFont(font: string): Declared {
  const words = font.trim().split(/\s+/);
  const isSize = (word: string) =>
    (/^[\d.]/.test(word) && !/^\d{3}$/.test(word)) || /^(?:xx?-)?(?:small|large)$|^medium$/i.test(word);
  const index = words.findIndex(isSize);
  if (index < 0 || index === words.length - 1) return {};
  const before = words.slice(0, index).map((word) => word.toLowerCase());
  return {
    'font-size': words[index].split('/')[0],
    'font-family': words.slice(index + 1).join(' '),
    'font-style': before.find((word) => /^(?:italic|oblique)$/.test(word)) ?? 'normal',
    'font-weight': before.find((word) => /^(?:bold|bolder|lighter|\d{3})$/.test(word)) ?? 'normal',
  };
}
